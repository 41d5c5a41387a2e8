package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.ComputedBatch;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.Rules;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.value.ProblemCode;

/** Decides the outcome of each row from its values, the record it matches and the policies. */
final class Decider {
  private final Destination destination;
  private final TableInfo table;
  private final List<CompiledFill> fills;
  private final Matcher matcher;
  private final UniqueGuard guard;
  private final Rules rules;
  private final Map<List<Object>, Long> touched = new HashMap<>();

  Decider(
      Destination destination,
      TableInfo table,
      List<CompiledFill> fills,
      Matcher matcher,
      UniqueGuard guard,
      Rules rules) {
    this.destination = destination;
    this.table = table;
    this.fills = fills;
    this.matcher = matcher;
    this.guard = guard;
    this.rules = rules;
  }

  /** Decides a batch; the matched records are fetched together. */
  List<Decision> decide(ComputedBatch batch, Lookups lookups) {
    Matcher.Match[] matches = new Matcher.Match[batch.rows()];
    Set<List<Object>> wanted = new HashSet<>();
    Object[] byField = new Object[table.fields().size()];
    for (int row = 0; row < batch.rows(); row++) {
      if (!batch.rejected(row)) {
        batch.values(row, byField);
        matches[row] = matcher.match(batch.line(row), byField);
        if (matches[row].records().size() == 1) {
          wanted.add(matches[row].records().get(0));
        }
      }
    }
    Map<List<Object>, Object[]> records =
        wanted.isEmpty() ? Map.of() : lookups.fetch(table, wanted);
    List<Decision> decisions = new ArrayList<>(batch.rows());
    for (int row = 0; row < batch.rows(); row++) {
      decisions.add(new Row(batch, row, matches[row], records).decide());
    }
    return decisions;
  }

  /** One row on its way to a decision. */
  private final class Row {
    private final long line;
    private final List<Filled> filled = new ArrayList<>(fills.size());
    private final Object[] byField = new Object[table.fields().size()];
    private final Matcher.Match match;
    private final Map<List<Object>, Object[]> records;
    private final List<LedgerEntry.Note> notes = new ArrayList<>(0);
    private List<Object> record;
    private Object[] before;

    Row(ComputedBatch batch, int row, Matcher.Match match, Map<List<Object>, Object[]> records) {
      this.line = batch.line(row);
      this.match = match;
      this.records = records;
      for (int f = 0; f < fills.size(); f++) {
        filled.add(batch.filled(f, row));
      }
      batch.values(row, byField);
    }

    Decision decide() {
      for (int f = 0; f < fills.size(); f++) {
        Filled value = filled.get(f);
        if (value.problem() != null) {
          notes.add(
              new LedgerEntry.Note(
                  value.problem().code(),
                  fills.get(f).field().name(),
                  value.problem().value(),
                  value.problem().reason(),
                  value.softened(),
                  value.question()));
        }
      }
      if (match == null) {
        return unwritten(Outcome.REJECTED);
      }
      if (!matcher.isEmpty() && match.key() == 0) {
        return reject(
            ProblemCode.REQUIRED,
            String.join(", ", destination.keys().get(0).fields()),
            "",
            "the match key is blank, so nobody can tell whether the record is there");
      }
      Decision repeat = match.repeated() ? repeat() : null;
      if (repeat != null) {
        return repeat;
      }
      if (match.records().size() > 1) {
        return several();
      }
      record = match.records().isEmpty() ? null : match.records().get(0);
      before = record == null ? null : records.get(record);
      if (before == null) {
        record = null;
        return none();
      }
      Long other = destination.keys().size() > 1 ? touched.putIfAbsent(record, line) : null;
      return other == null
          ? one()
          : reject(
              ProblemCode.REPEATED, null, null, "line " + other + " speaks of the same record");
    }

    private Decision repeat() {
      return switch (destination.policies().onRepeat()) {
        case KEEP_LAST ->
            line == match.lastLine()
                ? null
                : skip(
                    ProblemCode.REPEATED, "line " + match.lastLine() + " repeats it and is kept");
        case KEEP_FIRST ->
            line == match.firstLine()
                ? null
                : skip(
                    ProblemCode.REPEATED, "repeats line " + match.firstLine() + ", which is kept");
        case REJECT ->
            reject(
                ProblemCode.REPEATED,
                null,
                null,
                "the same key is on line "
                    + (line == match.firstLine() ? match.lastLine() : match.firstLine()));
      };
    }

    private Decision several() {
      String reason = match.records().size() + " records match it";
      return destination.policies().onSeveral() == Policies.OnSeveral.SKIP
          ? skip(ProblemCode.SEVERAL_MATCHES, reason)
          : reject(ProblemCode.SEVERAL_MATCHES, null, null, reason);
    }

    private Decision none() {
      return switch (destination.policies().onNone()) {
        case ADD -> add();
        case SKIP -> skip(ProblemCode.NO_MATCH, "no record matches it");
        case REJECT -> reject(ProblemCode.NO_MATCH, null, null, "no record matches it");
      };
    }

    private Decision one() {
      return switch (destination.policies().onMatch()) {
        case UPDATE -> update();
        case SKIP -> skip(ProblemCode.MATCHED, "the record is there already");
        case REJECT -> reject(ProblemCode.MATCHED, null, null, "the record is there already");
      };
    }

    private Decision add() {
      List<Integer> fields = new ArrayList<>();
      List<Object> values = new ArrayList<>();
      for (int f = 0; f < fills.size(); f++) {
        FieldInfo field = fills.get(f).field();
        Object value = filled.get(f).value();
        if (value != null) {
          fields.add(fills.get(f).fieldIndex());
          values.add(value);
        } else if (field.required()) {
          return reject(
              ProblemCode.REQUIRED, field.name(), "", "blank, and a new record needs a value");
        }
      }
      Rules.Broken broken = rules.broken(byField, line);
      if (broken != null) {
        return reject(ProblemCode.CHECK, null, broken.check(), broken.reason());
      }
      LedgerEntry.Note clash = guard.clash(line, byField, null);
      if (clash != null) {
        notes.add(clash);
        return unwritten(Outcome.REJECTED);
      }
      boolean waits = guard.take(line, byField, null, null);
      return new Decision(
          line,
          Outcome.NEW,
          0,
          null,
          null,
          new WriteSession.Change(line, null, fields, values),
          filled,
          List.of(),
          notes,
          waits);
    }

    private Decision update() {
      List<Integer> fields = new ArrayList<>();
      List<Object> values = new ArrayList<>();
      List<Integer> changed = new ArrayList<>();
      for (int f = 0; f < fills.size(); f++) {
        CompiledFill fill = fills.get(f);
        Object value = filled.get(f).value();
        boolean clears = fill.fill().blankOnMatch() == Fill.BlankOnMatch.CLEAR;
        if (fill.fill().onlyNew() || (value == null && !clears)) {
          continue;
        }
        if (!matcher.same(match.key(), fill.field(), value, before[fill.fieldIndex()])) {
          if (value == null && !fill.field().nullable()) {
            return reject(
                ProblemCode.REQUIRED, fill.field().name(), "", "blank, and it can't be cleared");
          }
          fields.add(fill.fieldIndex());
          values.add(value);
          changed.add(f);
        }
      }
      if (changed.isEmpty()) {
        return decision(Outcome.UNCHANGED, null, changed, false);
      }
      Object[] after = after(fields, values);
      Rules.Broken broken = rules.isEmpty() ? null : rules.broken(after, line);
      if (broken != null) {
        return reject(ProblemCode.CHECK, null, broken.check(), broken.reason());
      }
      LedgerEntry.Note clash = guard.clash(line, after, record);
      if (clash != null) {
        notes.add(clash);
        return unwritten(Outcome.REJECTED);
      }
      boolean waits = guard.take(line, after, record, before);
      return decision(
          Outcome.CHANGED, new WriteSession.Change(line, record, fields, values), changed, waits);
    }

    /** The record as it will stand. */
    private Object[] after(List<Integer> fields, List<Object> values) {
      Object[] after = before.clone();
      for (int i = 0; i < after.length; i++) {
        int at = fields.indexOf(i);
        after[i] = at < 0 ? after[i] : values.get(at);
      }
      return after;
    }

    private Decision skip(ProblemCode code, String reason) {
      notes.add(new LedgerEntry.Note(code, null, null, reason, false));
      return unwritten(Outcome.SKIPPED);
    }

    private Decision reject(ProblemCode code, String field, String value, String reason) {
      notes.add(new LedgerEntry.Note(code, field, value, reason, false));
      return unwritten(Outcome.REJECTED);
    }

    private Decision unwritten(Outcome outcome) {
      return decision(outcome, null, List.of(), false);
    }

    private Decision decision(
        Outcome outcome, WriteSession.Change change, List<Integer> changed, boolean waits) {
      int key = match == null || match.records().isEmpty() ? 0 : match.key();
      return new Decision(
          line, outcome, key, record, before, change, filled, changed, notes, waits);
    }
  }
}
