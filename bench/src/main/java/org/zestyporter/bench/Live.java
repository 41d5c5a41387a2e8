package org.zestyporter.bench;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Clock;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.match.MatchClass;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.preview.MatchSurvey;
import org.zestyporter.core.run.Classing;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.Recount;
import org.zestyporter.core.run.Remembered;
import org.zestyporter.core.run.RowOutcomes;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.Softly;

/**
 * Times what somebody waits for who edits match keys or answers questions of a large file: the
 * median and the slowest but one of twenty, against a table that has half of the rows. Asserts
 * nothing.
 */
public final class Live {
  private static final int ROUNDS = 5;
  private static final double HIGH = 0.95;
  private static final String[] WORDS = {
    "Norge", "Holland", "Sverige", "Espana", "Italia", "Deutschl.", "Francia"
  };
  private static final String[] MEANT = {"NO", "NL", "SE", "ES", "IT", "DE", "FR"};

  private final Application application;
  private final SourceTable source;
  private final Plan plan;

  /** Given up where memory is short, as a server does. */
  private final Softly<Remembered> remembered = new Softly<>();

  private Live(Application application, SourceTable source, Plan plan) {
    this.application = application;
    this.source = source;
    this.plan = plan;
  }

  /**
   * @param args how many rows, 1,000,000 if left out
   */
  public static void main(String[] args) throws IOException, SQLException {
    boolean isSaid = args.length > 0 && !args[0].isBlank();
    int rows = isSaid ? Integer.parseInt(args[0]) : 1_000_000;
    Path folder = Files.createTempDirectory("porter-live");
    Path file = folder.resolve("goods.csv");
    Goods.write(folder.resolve("plain.csv"), rows);
    spoil(folder.resolve("plain.csv"), file);
    try (EmbeddedPostgres postgres = EmbeddedPostgres.builder().start();
        SourceTable source = SourceReader.open(file, folder.resolve("cells"), Reading.FIND)) {
      String url = postgres.getJdbcUrl("postgres", "postgres");
      Database database = Database.connect(url, "postgres", "");
      try (Connection connection = postgres.getPostgresDatabase().getConnection();
          Statement statement = connection.createStatement()) {
        statement.execute("CREATE TABLE country (code CHAR(2) PRIMARY KEY, name VARCHAR(30))");
        statement.execute(
            "INSERT INTO country SELECT c, c FROM unnest(ARRAY['NL','DE','FR','GB','ES','IT','PT',"
                + "'NO','SE']) c");
        statement.execute("CREATE TABLE goods " + Goods.TABLE);
        statement.execute("ALTER TABLE goods ADD FOREIGN KEY (country) REFERENCES country (code)");
        Destination draft =
            new PlanDraft(database, source).draft(database.table("goods")).destination();
        Plan plan = new Plan("bench", null, null, List.of(translating(draft)), null);
        Live live = new Live(database, source, plan);
        live.fillHalf(statement);
        live.classes();
        live.answers();
      }
    }
  }

  private Remembered remembered() {
    return remembered.get(() -> new Remembered(application, source, Clock.systemUTC()));
  }

  /** Has about one row in thirty say its country in words. */
  private static void spoil(Path plain, Path spoilt) throws IOException {
    Random random = new Random(3);
    try (var lines = Files.lines(plain);
        var out = Files.newBufferedWriter(spoilt)) {
      for (String line : (Iterable<String>) lines::iterator) {
        String[] cells = line.split(",");
        int word = random.nextInt(WORDS.length * 30);
        if (word < WORDS.length && !cells[0].equals("id")) {
          cells[9] = WORDS[word];
        }
        out.write(String.join(",", cells));
        out.newLine();
      }
    }
  }

  private static Destination translating(Destination draft) {
    List<Fill> fills = new ArrayList<>();
    for (Fill fill : draft.fills()) {
      List<Step> steps = new ArrayList<>(fill.steps());
      steps.add(Step.of(StepKind.TRANSLATE, "book", "countries"));
      fills.add(fill.field().equals("country") ? fill.withSteps(steps) : fill);
    }
    return draft.withFills(fills);
  }

  /** Brings in the rows that say their country as it is known, and takes every other one away. */
  private void fillHalf(Statement statement) throws SQLException {
    Destination only = plan.destinations().get(0);
    List<Fill> rejecting =
        only.fills().stream()
            .map(f -> f.field().equals("country") ? f.withWhenBad(Fill.WhenBad.BLANK) : f)
            .toList();
    Plan all =
        plan.withPhrasebooks(book(WORDS.length))
            .withDestinations(List.of(only.withFills(rejecting)));
    new Pipeline(opened(all)).run("1", Ledger.NONE, Progress.NONE);
    statement.execute("DELETE FROM goods WHERE id % 2 = 1");
    statement.execute("UPDATE goods SET price = price + 1 WHERE id % 6 = 0");
    statement.execute("VACUUM ANALYZE goods");
  }

  private OpenedPlan opened(Plan any) {
    RunContext context = new RunContext("bench", LocalDateTime.of(2026, 11, 27, 9, 0), "goods.csv");
    return new OpenedPlan(application, source, any, context, Shared.NONE);
  }

  private static List<Phrasebook> book(int words) {
    List<Phrasebook.Phrase> phrases = new ArrayList<>();
    for (int w = 0; w < words; w++) {
      phrases.add(new Phrasebook.Phrase(WORDS[w], MEANT[w]));
    }
    return List.of(new Phrasebook("countries", phrases));
  }

  /** Edits of how rows match, after each of which the classes and sixty pairs are shown. */
  private void classes() {
    List<List<Ignore>> ignored =
        List.of(
            List.of(),
            List.of(Ignore.CASE),
            List.of(Ignore.SPACES),
            List.of(Ignore.CASE, Ignore.SPACES),
            List.of(Ignore.PUNCTUATION));
    MatchKey id = new MatchKey(List.of("id"), List.of());
    Destination only = plan.destinations().get(0);
    told("the first classes and pairs", List.of(shown(only.withKeys(List.of(id)))));
    List<Long> fields = new ArrayList<>();
    for (String field : List.of("code", "name", "category", "made_on")) {
      fields.add(shown(only.withKeys(List.of(new MatchKey(List.of(field), List.of())))));
    }
    told("after a key of a field that nobody has looked at", fields);
    List<Long> fresh = new ArrayList<>();
    List<Long> again = new ArrayList<>();
    for (List<Ignore> ignoring : ignored) {
      MatchKey code = new MatchKey(List.of("code"), ignoring);
      MatchKey name = new MatchKey(List.of("name"), ignoring);
      if (!ignoring.isEmpty()) {
        fresh.add(shown(only.withKeys(List.of(code))));
        fresh.add(shown(only.withKeys(List.of(name))));
      }
      fresh.add(shown(only.withKeys(List.of(id, name))));
      fresh.add(shown(only.withKeys(List.of(code, name))));
      fresh.add(shown(only.withKeys(List.of(new MatchKey(List.of("code", "name"), ignoring)))));
      // what else is said beside the keys
      Destination edited = only.withKeys(List.of(id, code));
      again.add(shown(edited));
      again.add(shown(edited.withPolicies(skipping(edited.policies()))));
      again.add(
          shown(
              edited.withFills(
                  only.fills().stream()
                      .map(f -> f.field().equals("price") ? f.forNewOnly() : f)
                      .toList())));
      again.add(shown(only.withKeys(List.of(code))));
    }
    told("after another key of these", fresh);
    told("after anything else about matching", again);
  }

  private static Policies skipping(Policies policies) {
    return new Policies(
        policies.onMatch(),
        Policies.OnNone.SKIP,
        policies.onSeveral(),
        policies.onRepeat(),
        policies.latestBy());
  }

  private long shown(Destination edited) {
    Plan answered = plan.withPhrasebooks(book(WORDS.length));
    long started = System.nanoTime();
    Classing classing =
        Classing.of(opened(answered.withDestinations(List.of(edited))), 0, remembered());
    new MatchSurvey(classing, MatchClass.ONE, 60).result(List.of());
    return System.nanoTime() - started;
  }

  /** Words of a question that are answered one after the other. */
  private void answers() {
    RowOutcomes rehearsed = new RowOutcomes();
    Plan asked = plan.withPhrasebooks(book(0));
    long began = System.nanoTime();
    new Pipeline(opened(asked)).rehearse(rehearsed.beside(Ledger.NONE), Progress.NONE);
    told("a rehearsal of all rows", List.of(System.nanoTime() - began));
    Recount.of(opened(asked), opened(asked), rehearsed, remembered());
    List<Long> times = new ArrayList<>();
    for (int round = 0; round < ROUNDS; round++) {
      RowOutcomes outcomes = rehearsed;
      for (int words = 1; words <= WORDS.length; words++) {
        Plan before = plan.withPhrasebooks(book(words - 1));
        Plan after = plan.withPhrasebooks(book(words));
        long started = System.nanoTime();
        Recount recount = Recount.of(opened(before), opened(after), outcomes, remembered());
        times.add(System.nanoTime() - started);
        outcomes = recount.outcomes();
      }
    }
    told("counts after an answer about " + source.rowCount() / 210 + " rows", times);
  }

  private static void told(String what, List<Long> nanos) {
    List<Long> sorted = nanos.stream().sorted().toList();
    System.out.printf(
        Locale.ROOT,
        "%-50s median %6.2f s, 95 of 100 %6.2f s, of %d%n",
        what,
        sorted.get(sorted.size() / 2) / 1e9,
        sorted.get((int) Math.min(sorted.size() - 1, sorted.size() * HIGH)) / 1e9,
        sorted.size());
  }
}
