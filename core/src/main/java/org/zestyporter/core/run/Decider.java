package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.KeyIndex;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.match.Match;
import org.zestyporter.core.match.MatchClass;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.value.LongMap;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

/**
 * Decides the outcome of each row in one destination from its values, the record it matches and the
 * policies.
 */
final class Decider {
  private final Target target;
  private final boolean writes;

  /**
   * Rows by the records that they speak of; null where one key finds these, which tells repeats.
   */
  private final @Nullable KeyIndex touched;

  /** Records of keys that make one record each, by the hash of the key. */
  private final LongMap<RowRecord> claimed = new LongMap<>();

  private final Merges merges;
  private final Differences differences;

  /** Records of rows that are kept of several with the same key, by the row's index from 1. */
  private final LongMap<RowRecord> kept = new LongMap<>();

  private final boolean[] required;

  /** Fills of fields whose values must be unique. */
  private final boolean[] guarded;

  Decider(Target target, boolean writes) {
    this.target = target;
    this.writes = writes;
    boolean once = target.destination.keys().size() == 1 && !target.matcher.isNear();
    this.touched = once || target.matcher.isEmpty() ? null : new KeyIndex();
    this.required = new boolean[target.fills.size()];
    this.guarded = new boolean[required.length];
    this.merges = new Merges(required.length);
    this.differences = new Differences(target);
    for (int f = 0; f < required.length; f++) {
      FieldInfo field = target.fills.get(f).field();
      required[f] = field.required();
      guarded[f] = target.guard.uses(field.name());
    }
  }

  void decide(TargetRows rows, int r) {
    new Row(rows, r).decide();
  }

  /** True if each record that was found is written for one row at most. */
  boolean isAlone() {
    return touched == null && !target.destination.distinct();
  }

  /** True if what becomes of a row does not depend on whether those before it are taken. */
  boolean isApart() {
    return isAlone()
        && !target.isNeeded
        && target.guard.isApart()
        && target.fills.stream().noneMatch(CompiledFill::makes);
  }

  /** Rejects a row for a reason of its own. */
  void reject(TargetRows rows, int r, LedgerEntry.Note why) {
    tellOdd(rows, r);
    rows.note(r, why);
    rows.outcomes[r] = (byte) Outcome.REJECTED.ordinal();
  }

  /** Takes back that a row is written, after all. */
  void takeBack(TargetRows rows, int r, LedgerEntry.Note why) {
    long line = rows.line(r);
    List<Object> record = rows.keys[r];
    boolean isNew = rows.before[r] < 0;
    boolean asNoted = isNew && !rows.isSettled(r);
    long[] after = asNoted ? rows.guarded(r) : target.guard.hashes(after(rows, r));
    target.guard.giveBack(line, after, record, isNew ? null : before(rows, r));
    if (record != null && touched != null && touched.get(record) == rows.first + r) {
      touched.put(record, -1);
    }
    if (rows.records != null || target.destination.distinct()) {
      kept.remove(rows.first + r + 1L);
      claimed.remove(target.matcher.isEmpty() ? 0 : target.matcher.hash(rows.byField, r));
    }
    if (rows.records != null) {
      rows.records[r] = null;
    }
    rows.note(r, why);
    rows.outcomes[r] = (byte) Outcome.REJECTED.ordinal();
    rows.changed[r] = null;
    rows.waits[r] = false;
    if (rows.updates != null) {
      rows.updates[r] = null;
    }
  }

  /** The guarded values of the record that a row found. */
  private long[] before(TargetRows rows, int r) {
    return target.guard.hashes(rows.found.columns(), rows.before[r]);
  }

  private Object[] after(TargetRows rows, int r) {
    Object[] given = rows.values(r);
    if (rows.before[r] < 0) {
      return given;
    }
    Object[] after = rows.before(r);
    for (int f : rows.changed[r]) {
      int at = target.fills.get(f).fieldIndex();
      after[at] = given[at];
    }
    return after;
  }

  private void tellOdd(TargetRows rows, int r) {
    for (int f = 0; f < required.length; f++) {
      Filled odd = rows.odd(f, r);
      if (odd != null) {
        rows.note(
            r,
            new LedgerEntry.Note(
                odd.problem().code(),
                target.fills.get(f).field().name(),
                odd.problem().value(),
                odd.problem().reason(),
                odd.softened(),
                odd.question()));
      }
    }
    Problem condition = rows.problems == null ? null : rows.problems[r];
    if (condition != null) {
      rows.note(
          r,
          new LedgerEntry.Note(
              condition.code(),
              null,
              condition.value(),
              "whether it goes to " + target.label() + " can't be told: " + condition.reason(),
              false));
    }
  }

  /** One row on its way to a decision. */
  private final class Row {
    private final TargetRows rows;
    private final int r;
    private final long line;
    private Match match;
    private long claim;

    Row(TargetRows rows, int r) {
      this.rows = rows;
      this.r = r;
      this.line = rows.line(r);
    }

    void decide() {
      tellOdd(rows, r);
      if (isRejected()) {
        outcome(Outcome.REJECTED);
        return;
      }
      match = rows.matches[r] != null ? rows.matches[r] : rows.match(r);
      rows.matchedBy[r] = (byte) (match.isFound() ? match.key() : 0);
      MatchClass is = MatchClass.of(match, rows.first + r, target.destination);
      if (target.destination.distinct() && is != MatchClass.TROUBLED && isClaimed()) {
        return;
      }
      if (isKeptOfSeveral() && onRepeat() == Policies.OnRepeat.MERGE) {
        merges.take(rows, r);
      }
      switch (is) {
        case TROUBLED -> blankKey();
        case REPEATS -> repeat();
        case DECIDED -> leaveOut();
        case SIMILAR -> similar();
        case SEVERAL -> several();
        case NONE -> none();
        case ONE -> found();
      }
    }

    private void blankKey() {
      if (target.destination.distinct()) {
        skip(ProblemCode.REQUIRED, "its key is blank, so there is no record to make");
        return;
      }
      reject(
          ProblemCode.REQUIRED,
          String.join(", ", target.destination.keys().get(0).fields()),
          "",
          "the match key is blank, so nobody can tell whether the record is there");
    }

    private void found() {
      int at = rows.foundAt == null ? -1 : rows.foundAt[r];
      if (at < 0) {
        none();
        return;
      }
      List<Object> record = match.records().get(0);
      target.matcher.verify(match.key(), rows.byField, r, rows.found.columns(), at);
      rows.keys[r] = record;
      rows.before[r] = at;
      int other = touched == null ? -1 : touched.get(record);
      if (other < 0) {
        if (touched != null) {
          touched.put(record, rows.first + r);
        }
        one(record);
      } else {
        long its = target.lines.line(other);
        reject(ProblemCode.REPEATED, null, null, "line " + its + " speaks of the same record");
      }
    }

    private boolean isRejected() {
      if (rows.problems != null && rows.problems[r] != null) {
        return true;
      }
      if (!rows.isSettled(r)) {
        return rows.filled.rejected(r);
      }
      for (int f = 0; f < required.length; f++) {
        Filled odd = rows.odd(f, r);
        if (odd != null && odd.rejects()) {
          return true;
        }
      }
      return false;
    }

    /** True if an earlier row has made or matched the record of this key. */
    private boolean isClaimed() {
      if (target.matcher.isEmpty()) {
        return false;
      }
      claim = target.matcher.hash(rows.byField, r);
      RowRecord known = claimed.get(claim);
      if (known == null) {
        return false;
      }
      if (rows.records != null) {
        rows.records[r] = known;
      }
      outcome(Outcome.SKIPPED);
      return true;
    }

    private Policies.OnRepeat onRepeat() {
      return match.onRepeat(target.destination.policies());
    }

    private boolean isKeptOfSeveral() {
      return !target.destination.distinct()
          && match.repeated()
          && match.kept(target.destination.policies()) == rows.first + r;
    }

    private void repeat() {
      int index = rows.first + r;
      int keeps = match.kept(target.destination.policies());
      if (rows.records != null && keeps >= 0) {
        rows.records[r] = kept.get(keeps + 1L);
      }
      switch (onRepeat()) {
        case KEEP_LAST ->
            skip(ProblemCode.REPEATED, "line " + lineOf(match.last()) + " repeats it and is kept");
        case MERGE -> {
          merges.add(rows, r, keeps);
          skip(ProblemCode.REPEATED, "goes into the record of line " + lineOf(match.last()));
        }
        case KEEP_FIRST ->
            skip(ProblemCode.REPEATED, "repeats line " + lineOf(match.first()) + ", which is kept");
        case REJECT ->
            reject(ProblemCode.REPEATED, null, null, "the same key is on line " + otherLine(index));
        case ASK ->
            ask(
                ProblemCode.CONTRADICTED,
                String.valueOf(lineOf(match.first())),
                "line " + otherLine(index) + " has the same key and says something else");
      }
    }

    private long otherLine(int index) {
      return lineOf(index == match.first() ? match.last() : match.first());
    }

    private long lineOf(int index) {
      return target.lines.line(index);
    }

    /** Somebody has decided that rows with this key are left out. */
    private void leaveOut() {
      if (match.act() == Decision.Act.SKIP) {
        skip(ProblemCode.DECIDED, "it was decided that it is left out");
      } else {
        reject(ProblemCode.DECIDED, null, null, "it was decided that it is rejected");
      }
    }

    private void similar() {
      if (!match.records().isEmpty()) {
        ask(ProblemCode.SIMILAR, match.nearness());
        return;
      }
      List<Long> others = match.rows().stream().map(this::lineOf).toList();
      ask(
          ProblemCode.SIMILAR_ROW,
          others.stream().map(String::valueOf).collect(Collectors.joining("; ")),
          "much like line "
              + others.get(0)
              + (others.size() > 1 ? " and others: " : ": ")
              + match.nearness());
    }

    private void several() {
      Policies policies = target.destination.policies();
      String reason = match.records().size() + " records match it";
      switch (policies.onSeveral()) {
        case ASK -> ask(ProblemCode.SEVERAL_MATCHES, reason);
        case SKIP -> several(Outcome.SKIPPED, reason);
        case REJECT -> several(Outcome.REJECTED, reason);
        case LATEST ->
            several(
                Outcome.REJECTED,
                reason + ", and none of them alone has the highest " + policies.latestBy());
      }
    }

    private void several(Outcome outcome, String reason) {
      String records = RecordKeys.text(match.records());
      rows.note(r, new LedgerEntry.Note(ProblemCode.SEVERAL_MATCHES, null, records, reason, false));
      outcome(outcome);
    }

    /** Lets a row wait for what somebody says of its key. */
    private void ask(ProblemCode code, String reason) {
      ask(code, RecordKeys.text(match.records()), reason);
    }

    private void ask(ProblemCode code, String value, String reason) {
      String field = String.join(", ", target.destination.keys().get(match.key() - 1).fields());
      rows.note(r, new LedgerEntry.Note(code, field, value, reason, false, true));
      outcome(Outcome.REJECTED);
    }

    private void none() {
      boolean isDecided = match.act() == Decision.Act.OTHER || match.key() == 0;
      switch (target.destination.policies().onNone()) {
        case ADD -> add();
        case SKIP -> skip(ProblemCode.NO_MATCH, "no record matches it");
        case REJECT -> reject(ProblemCode.NO_MATCH, null, null, "no record matches it");
        case ASK -> {
          if (isDecided) {
            add();
          } else {
            ask(ProblemCode.NO_MATCH, "no record matches it");
          }
        }
      }
    }

    private void one(List<Object> record) {
      switch (target.destination.policies().onMatch()) {
        case UPDATE, FILL_BLANKS -> update(record);
        case ASK -> {
          if (match.act() == Decision.Act.TAKE) {
            update(record);
          } else {
            ask(ProblemCode.MATCHED, "a record matches it");
          }
        }
        case SKIP -> skip(ProblemCode.MATCHED, "the record is there already");
        case REJECT -> reject(ProblemCode.MATCHED, null, null, "the record is there already");
      }
      boolean isWanted = claim != 0 || rows.records != null;
      if (isWanted && Outcome.of(rows.outcomes[r]) != Outcome.REJECTED) {
        know(RowRecord.found(rows, r));
      }
    }

    /** Lets other records know which record the row speaks of. */
    private void know(RowRecord record) {
      if (claim != 0) {
        claimed.put(claim, record);
      }
      if (rows.records != null) {
        rows.records[r] = record;
        if (match.repeated() && !target.destination.distinct()) {
          kept.put(rows.first + r + 1L, record);
        }
      }
    }

    private void add() {
      int blank = rows.firstBlank(required, r);
      if (blank >= 0) {
        reject(
            ProblemCode.REQUIRED,
            target.fills.get(blank).field().name(),
            "",
            "blank, and a new record needs a value");
        return;
      }
      boolean settled = rows.isSettled(r);
      Object[] values = null;
      boolean isRuled = !target.rules.isEmpty();
      if (isRuled || settled) {
        values = rows.values(r);
      }
      if (isRuled && isBroken(values, true)) {
        return;
      }
      long[] hashes = settled ? target.guard.hashes(values) : rows.guarded(r);
      int clash = target.guard.clash(hashes, null, settled || rows.mayBeHeld(r));
      if (clash >= 0) {
        rows.note(r, target.guard.told(clash, hashes, rows.values(r)));
        outcome(Outcome.REJECTED);
        return;
      }
      rows.waits[r] = target.guard.take(line, hashes, null, null, !settled);
      outcome(Outcome.NEW);
      if (rows.records != null || claim != 0) {
        know(RowRecord.made(rows, r));
      }
    }

    private void update(List<Object> record) {
      List<Integer> changed = differences.of(rows, r, match.key());
      int last = changed.isEmpty() ? -1 : changed.get(changed.size() - 1);
      if (last >= 0 && differences.isUnclearable(rows, r, last)) {
        String field = target.fills.get(last).field().name();
        reject(ProblemCode.REQUIRED, field, "", "blank, and it can't be cleared");
        return;
      }
      boolean moves = differences.movesToOtherParent(rows, r);
      if (!moves && differences.areStamps(changed)) {
        outcome(Outcome.UNCHANGED);
        return;
      }
      List<Integer> fields = new ArrayList<>();
      List<Object> values = new ArrayList<>();
      for (int f : changed) {
        fields.add(target.fills.get(f).fieldIndex());
        values.add(rows.value(f, r));
      }
      if (moves) {
        fields.add(target.parent.fieldIndex());
        values.add(rows.parent(r));
      }
      rows.waits[r] = false;
      if ((moves || isGuarded(changed) || !target.rules.isEmpty())
          && isKept(record, fields, values)) {
        return;
      }
      rows.changed[r] = changed.stream().mapToInt(Integer::intValue).toArray();
      outcome(Outcome.CHANGED);
      if (writes) {
        rows.updates[r] = new WriteSession.Change(line, record, fields, values);
      }
    }

    /** True if others have to know of the new value of one of these fills. */
    private boolean isGuarded(List<Integer> changed) {
      return changed.stream().anyMatch(f -> guarded[f]);
    }

    /** True if the record may not become what it would be; takes what is unique in it if it may. */
    private boolean isKept(List<Object> record, List<Integer> fields, List<Object> values) {
      Object[] after = rows.before(r);
      for (int i = 0; i < fields.size(); i++) {
        after[fields.get(i)] = values.get(i);
      }
      if (isBroken(after, false)) {
        return true;
      }
      long[] hashes = target.guard.hashes(after);
      int clash = target.guard.clash(hashes, record, true);
      if (clash >= 0) {
        rows.note(r, target.guard.told(clash, hashes, after));
        outcome(Outcome.REJECTED);
        return true;
      }
      rows.waits[r] = target.guard.take(line, hashes, record, before(rows, r), false);
      return false;
    }

    private boolean isBroken(Object[] values, boolean isNew) {
      LedgerEntry.Note broken = target.rules.broken(values, isNew, line);
      if (broken != null) {
        rows.note(r, broken);
        outcome(Outcome.REJECTED);
      }
      return broken != null;
    }

    private void skip(ProblemCode code, String reason) {
      rows.note(r, new LedgerEntry.Note(code, null, null, reason, false));
      outcome(Outcome.SKIPPED);
    }

    private void reject(
        ProblemCode code, @Nullable String field, @Nullable String value, String reason) {
      rows.note(r, new LedgerEntry.Note(code, field, value, reason, false));
      outcome(Outcome.REJECTED);
    }

    private void outcome(Outcome outcome) {
      rows.outcomes[r] = (byte) outcome.ordinal();
    }
  }
}
