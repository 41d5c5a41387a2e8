package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.util.BitSet;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Comparison.Ignore;

/** What is noted of keys is kept for as long as it holds, and there is room. */
class KeptKeysTest {
  private static final long ROOM = 1 << 20;

  @TempDir Path folder;

  /** How often all rows were noted. */
  private int noted;

  /** True if the first row says something else than others with its key. */
  private boolean differ;

  /** What somebody looks at who edits a plan. */
  private final class Editor {
    private final Databases.Fresh on;
    private final SourceTable source;
    private final KeptAnswers answers;
    private final KeptColumns columns;
    private final KeptKeys keys;

    Editor(Databases.Fresh on, SourceTable source, long room) {
      this.on = on;
      this.source = source;
      Clock clock = Clock.systemUTC();
      Duration hour = Duration.ofHours(1);
      answers = new KeptAnswers(on.database(), clock, hour, ROOM);
      columns = new KeptColumns(source, clock, hour, ROOM);
      keys = new KeptKeys(answers, room);
    }

    /** The hashes of the first key; what has to be noted for it is counted. */
    long[] look(Destination destination) {
      return look(destination, null, new BitSet());
    }

    /**
     * @param before the same where most rows come to the same values; null if it is not known
     * @param touched the rows of the source that come to others
     */
    long[] look(Destination destination, @Nullable Destination before, BitSet touched) {
      Plan plan = new Plan("Chor", null, Reading.FIND, List.of(destination), null);
      OpenedPlan own = Runs.opened(on, source, plan).through(on.database(), answers);
      KeptColumns.Open open = columns.open(own, destination);
      Target target = Targets.open(own, List.of(open.fills())).get(0);
      ChunkSource chunks =
          new KeptChunks(
              List.of(new KeptChunks.Part(open, open.chunks(target.lookedAt(true)), target)));
      KeptKeys.Alike alike =
          before == null
              ? null
              : new KeptKeys.Alike(List.of(columns.open(own, before)), List.of(touched));
      List<Noting.Hashed> hashed =
          keys.hashed(List.of(target), List.of(target), List.of(open), chunks, true, alike).get(0);
      keys.known(
          List.of(target),
          List.of(open),
          false,
          () -> {
            new Noting(own, List.of(target), target, chunks, List.of(hashed)).go(Progress.NONE);
            noted += target.matcher.asksForAll(0) ? 1 : 0;
          });
      TargetRows rows = chunks.next(0).targets().get(0);
      differ = target.matcher.match(0, rows.byField, 0).repeats().differ();
      return hashed.get(0).keys().byKey()[0];
    }
  }

  private static Destination with(Destination members, Fill fill) {
    return members.withFills(
        members.fills().stream().map(f -> f.field().equals(fill.field()) ? fill : f).toList());
  }

  private void edit(long room, Consumer<Editor> edits) throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source =
            Runs.source(
                folder,
                "Nr;Nachname;Geboren;Stimme;Beitrag;Ort",
                "7;Adler;1980-01-02;Alt;40;Kiel",
                ";BRANDT;1990-09-09;Bass;55;")) {
      Choir.schema(on);
      on.database().forget();
      edits.accept(new Editor(on, source, room));
    }
  }

  @Test
  void hashesHoldUntilAFieldOfTheKeyIsFilledOtherwise() throws SQLException, IOException {
    Destination byName = Choir.members(Policies.DEFAULT).withKeys(List.of(Choir.BY_NAME));
    edit(
        ROOM,
        editor -> {
          long[] hashes = editor.look(byName);
          assertThat(hashes).hasSize(2).doesNotContain(0);
          assertThat(editor.look(byName)).isSameAs(hashes);
          assertThat(editor.look(with(byName, Fill.of("ort", Origin.fixed("Ulm")))))
              .isSameAs(hashes);
          long[] others = editor.look(with(byName, Fill.of("nachname", Origin.fixed("Adler"))));
          assertThat(others).doesNotContain(hashes[1]);
          assertThat(others[0]).isEqualTo(hashes[0]);
        });
  }

  @Test
  void whatIsFoundHoldsUntilOtherRowsAreRejected() throws SQLException, IOException {
    Destination byName = Choir.members(Policies.DEFAULT).withKeys(List.of(Choir.BY_NAME));
    edit(
        ROOM,
        editor -> {
          editor.look(byName);
          assertThat(noted).isEqualTo(1);
          editor.look(byName.withAmong(null).withKeys(List.of(Choir.BY_NAME)));
          editor.look(with(byName, Fill.of("ort", Origin.column("Ort")).forNewOnly()));
          editor.look(with(byName, Fill.of("beitrag", Origin.fixed("12")).forNewOnly()));
          assertThat(noted).isEqualTo(1);
          editor.look(with(byName, Fill.of("stimme", Origin.fixed("viel zu lange Stimme"))));
          assertThat(noted).isEqualTo(2);
          editor.look(byName.withAmong("[ausgetreten]=0"));
          assertThat(noted).isEqualTo(3);
          editor.look(byName.withKeys(List.of(Choir.BY_NUMBER)));
          assertThat(noted).isEqualTo(4);
          editor.look(byName);
          assertThat(noted).isEqualTo(4);
        });
  }

  @Test
  void whetherRowsSayTheSameIsToldAnewWhereTheySayOtherwise() throws SQLException, IOException {
    Policies asking = new Policies(null, null, null, Policies.OnRepeat.ASK);
    MatchKey byTown = new MatchKey(List.of("ort"), List.of(Ignore.CASE));
    Fill fixed = Fill.of("ort", Origin.fixed("Ulm"));
    Destination same = with(Choir.members(asking).withKeys(List.of(byTown)), fixed);
    Fill voice = Fill.of("stimme", Origin.fixed("Bass"));
    edit(
        ROOM,
        editor -> {
          editor.look(same);
          assertThat(differ).isTrue();
          editor.look(with(same, voice));
          assertThat(differ).isTrue();
          Destination alike = same.withFills(List.of(fixed, voice));
          editor.look(alike);
          assertThat(differ).isFalse();
          editor.look(same);
          assertThat(differ).isTrue();
          editor.look(same.withPolicies(Policies.DEFAULT));
          assertThat(differ).isFalse();
          assertThat(noted).isEqualTo(1);
        });
  }

  @Test
  void onlyRowsThatComeToOthersAreHashedAnew() throws SQLException, IOException {
    Destination byName = Choir.members(Policies.DEFAULT).withKeys(List.of(Choir.BY_NAME));
    Destination adler = with(byName, Fill.of("nachname", Origin.fixed("Adler")));
    Destination brandt = with(byName, Fill.of("nachname", Origin.fixed("Brandt")));
    edit(
        ROOM,
        editor -> {
          long[] hashes = editor.look(byName).clone();
          BitSet second = new BitSet();
          second.set(1);
          long[] ofAdler = editor.look(adler, byName, second);
          assertThat(ofAdler[0]).isEqualTo(hashes[0]);
          assertThat(ofAdler[1]).isNotEqualTo(hashes[1]);
          // it is believed which rows these are, and what was known stays as it was
          assertThat(editor.look(brandt, byName, new BitSet())).isEqualTo(hashes);
          assertThat(editor.look(byName)).isEqualTo(hashes);
        });
    edit(ROOM, editor -> assertThat(editor.look(adler, byName, new BitSet())).doesNotContain(0));
  }

  @Test
  void whatHasNoRoomIsToldAnewAndAlike() throws SQLException, IOException {
    Destination byName = Choir.members(Policies.DEFAULT).withKeys(List.of(Choir.BY_NAME));
    edit(
        0,
        editor -> {
          long[] hashes = editor.look(byName);
          assertThat(editor.look(byName)).isNotSameAs(hashes).isEqualTo(hashes);
          assertThat(noted).isEqualTo(2);
        });
  }
}
