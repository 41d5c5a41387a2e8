package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

class RedraftTest {
  private static Destination of(Fill... fills) {
    return new Destination("boat", List.of(fills), List.of(), Policies.DEFAULT);
  }

  private static Fill from(String field, String column) {
    return Fill.of(field, Origin.column(column));
  }

  private static List<String> told(Redraft.Followed followed) {
    return followed.destination().fills().stream()
        .map(f -> f.field() + "<" + f.origin().column())
        .sorted()
        .toList();
  }

  @Test
  void whatNobodyHasChangedFollows() {
    Destination last =
        of(from("reg", "Column A"), from("name", "Column B"), from("gone", "Column C"));
    Destination anew = of(from("reg", "Reg"), from("name", "Name"), from("feet", "Feet"));
    Redraft.Followed followed = Redraft.follow(last, last, anew);
    assertThat(told(followed)).containsExactly("feet<Feet", "name<Name", "reg<Reg");
    assertThat(followed.fields()).containsExactly("reg", "name", "gone", "feet");
  }

  /** Changed, emptied or filled by a person: all of it stays. */
  @Test
  void whatAPersonHasTouchedStays() {
    Destination last = of(from("reg", "Column A"), from("name", "Column B"), from("kind", "C"));
    Fill mine = Fill.of("reg", Origin.column("Column A"), Step.of(StepKind.TRIM)).withGuess(false);
    Destination current = of(mine, from("kind", "C"), from("feet", "Column D"));
    Destination anew = of(from("reg", "Reg"), from("name", "Name"), from("kind", "C"));
    Redraft.Followed followed = Redraft.follow(current, last, anew);
    assertThat(told(followed)).containsExactly("feet<Column D", "kind<C", "reg<Column A");
    assertThat(followed.fields()).isEmpty();
  }

  @Test
  void keysFollowUnlessTheyWereChanged() {
    Destination last = of().withKeys(List.of(new MatchKey(List.of("reg"), null)));
    Destination anew = of().withKeys(List.of(new MatchKey(List.of("name"), null)));
    assertThat(Redraft.follow(last, last, anew).destination().keys())
        .containsExactly(new MatchKey(List.of("name"), null));
    Destination mine = of().withKeys(List.of());
    assertThat(Redraft.follow(mine, last, anew).destination().keys()).isEmpty();
  }

  @Test
  void aReadingThatGivesTheSameRowsIsNoReason() {
    Reading said = Reading.FIND.withTitleRows(Arrays.asList(4L));
    assertThat(Redraft.isDue(said, said.withConfirmed(List.of("currency:Due")))).isFalse();
    assertThat(Redraft.isDue(Reading.FIND, said)).isTrue();
    assertThat(Redraft.isDue(said, said.withFillDown(List.of("Pier")))).isTrue();
  }
}
