package org.zestyporter.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.ToldLink;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.source.FileChange;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.LocaleSettings;

final class DraftCommand extends Command {
  private static final Pattern LINK =
      Pattern.compile(
          "(?:(?<table>[^=]+)\\.)?(?<field>[^=.]+)=(?<to>[^=()]+)(?:\\((?<key>[^()]+)\\))?");

  private Path file;
  private String to;
  private String table;
  private String sheet;
  private Path reading;
  private Path outFile;
  private boolean withChildren;
  private final List<String> told = new ArrayList<>();
  private boolean json;

  DraftCommand() {
    super("draft", "Proposes a plan for a file and a table; without a table, ranks the tables.");
    parameter("FILE", word -> file = path(word));
    option("to", "URL", "JDBC address", word -> to = word);
    option("table", "T", "left out to rank the tables", word -> table = word);
    option("sheet", "S", "the sheet to read", word -> sheet = word);
    option("reading", "R.json", "how to read the file", word -> reading = path(word));
    option("out", "PLAN.json", "where to write the plan", word -> outFile = path(word));
    option(
        "children",
        "also fill the tables that belong to it, from columns that are left",
        () -> withChildren = true);
    options(
        "link",
        "[T.]FIELD=TO[(KEY)]",
        "a field holds the key of another table, though the database does not say so",
        told::add);
    option("json", "print the plan", () -> json = true);
  }

  /**
   * What is proposed, and what is left.
   *
   * @param fieldsLeft fields that nothing fills, with whether a new record needs them
   * @param columnsLeft columns that fill nothing
   * @param children destinations that columns which are left could fill besides
   */
  private record Drafted(
      Plan plan,
      List<ProposedTable.FillEvidence> evidence,
      List<FieldLeft> fieldsLeft,
      List<String> columnsLeft,
      List<Child> children) {}

  /** A destination that could be filled besides. */
  private record Child(Destination destination, List<ProposedTable.FillEvidence> evidence) {}

  private record FieldLeft(String field, boolean required) {}

  /** A table that a file may be meant for. */
  private record Ranked(String table, long columns, int of) {}

  @Override
  int call() throws IOException {
    List<ToldLink> links = told.stream().map(this::link).toList();
    Database database = Target.open(to, System.getenv()).with(links);
    links.forEach(l -> l.link(database.table(l.table()), database.table(l.to())));
    Reading wanted =
        reading == null ? Reading.FIND : PlanJson.readReading(Files.readString(reading));
    try (OpenedFile opened =
        OpenedFile.open(file, sheet == null ? wanted : wanted.withSheet(sheet))) {
      PlanDraft draft = new PlanDraft(database, opened.table());
      if (table == null) {
        rank(draft.rank(), opened.table(), out);
      } else {
        ProposedTable proposal = draft.draft(database.table(table));
        propose(proposal, draft.children(proposal), database, links, opened.table(), out);
      }
      out.flush();
      return Porter.DONE;
    }
  }

  private ToldLink link(String text) {
    Matcher parts = LINK.matcher(text);
    if (!parts.matches() || parts.group("table") == null && table == null) {
      throw mistake(
          "--link says FIELD=TABLE or FIELD=TABLE(KEY), with --table or the field's table and a"
              + " point before it, not “"
              + text
              + "”");
    }
    String own = parts.group("table") == null ? table : parts.group("table");
    return new ToldLink(own, parts.group("field"), parts.group("to"), parts.group("key"));
  }

  private void rank(List<ProposedTable> proposals, SourceTable source, PrintWriter out) {
    List<Ranked> ranked =
        proposals.stream()
            .map(p -> new Ranked(p.destination().table(), p.columnsUsed(), source.columns().size()))
            .toList();
    if (json) {
      Json.print(out, ranked);
      return;
    }
    for (Ranked r : ranked) {
      out.printf("%-24s %d of %d columns find a field%n", r.table(), r.columns(), r.of());
    }
    out.println("Say which with --table.");
  }

  private void propose(
      ProposedTable proposal,
      List<ProposedTable> children,
      Database database,
      List<ToldLink> links,
      SourceTable source,
      PrintWriter out)
      throws IOException {
    TableInfo info = database.table(proposal.destination().table());
    String name = file.getFileName().toString().replaceFirst("\\.[^.]+$", "");
    List<Destination> destinations = new ArrayList<>(List.of(proposal.destination()));
    if (withChildren) {
      children.forEach(c -> destinations.add(c.destination()));
    }
    Plan plan = new Plan(name, null, found(source), destinations, null).withLinks(links);
    Set<String> filled = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    proposal.destination().fills().stream()
        .filter(Fill::isGiven)
        .forEach(f -> filled.add(f.field()));
    List<FieldLeft> fieldsLeft =
        info.fields().stream()
            .filter(f -> !filled.contains(f.name()))
            .map(f -> new FieldLeft(f.name(), f.required()))
            .toList();
    Set<String> used = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    String document = PlanJson.write(plan);
    destinations.forEach(d -> d.columnsRead().forEach(used::add));
    List<String> columnsLeft = source.columns().stream().filter(c -> !used.contains(c)).toList();
    if (outFile != null) {
      Files.writeString(outFile, document + "\n");
    }
    if (json) {
      List<Child> offered =
          children.stream().map(c -> new Child(c.destination(), c.evidence())).toList();
      Json.print(out, new Drafted(plan, proposal.evidence(), fieldsLeft, columnsLeft, offered));
      return;
    }
    print(proposal, out);
    if (!fieldsLeft.isEmpty()) {
      out.println(
          "Fields left to the database: "
              + String.join(
                  ", ",
                  fieldsLeft.stream()
                      .map(f -> f.field() + (f.required() ? " (required!)" : ""))
                      .toList()));
    }
    info.fields().stream()
        .filter(f -> f.required() && f.link() == null && f.type() == FieldType.WHOLE)
        .filter(f -> !filled.contains(f.name()))
        .forEach(
            f ->
                out.println(
                    "If "
                        + f.name()
                        + " holds the key of another table, say which: --link "
                        + f.name()
                        + "=TABLE"));
    if (!columnsLeft.isEmpty()) {
      out.println("Columns that fill nothing: " + String.join(", ", columnsLeft));
    }
    for (ProposedTable child : children) {
      out.printf(
          "%n%s %s, of the same row's %s:%n",
          withChildren ? "Also fills" : "Could also fill",
          child.destination().label(),
          proposal.destination().label());
      print(child, out);
    }
    if (!children.isEmpty() && !withChildren) {
      out.println("Take them into the plan with --children.");
    }
  }

  private static void print(ProposedTable proposal, PrintWriter out) {
    for (ProposedTable.FillEvidence e : proposal.evidence()) {
      out.printf(
          "%-20s %-24s %-7s %s%n",
          e.field(), e.column() == null ? "-" : e.column(), e.sure().word(), e.because());
    }
    for (Fill fill : proposal.destination().fills()) {
      Origin.Link link = fill.origin().link();
      if (link != null && !link.create().isEmpty()) {
        out.println(
            "For "
                + fill.field()
                + ", a record that is added takes "
                + String.join(
                    ", ",
                    link.create().stream()
                        .map(f -> f.field() + " from " + f.origin().column())
                        .toList()));
      }
    }
  }

  /**
   * The reading that was found, as far as it says something of the next file too: not where this
   * one ends, nor which words mean blank in it, nor how numbers and dates are written where columns
   * differ in that.
   */
  private static Reading found(SourceTable source) {
    Reading reading = source.reading();
    return reading.with(
        b ->
            b.lastRow(null)
                .skip(null)
                .section(reading.section().isEmpty() ? null : reading.section())
                .omit(reading.omit().isEmpty() ? null : reading.omit())
                .blankWords(null)
                .confirmed(null)
                .locale(isOfOneLocale(source) ? reading.locale() : null)
                .columns(FileChange.shape(source)));
  }

  /** False if a column writes numbers or dates otherwise than the file: each is found by itself. */
  private static boolean isOfOneLocale(SourceTable source) {
    LocaleSettings file = source.reading().locale();
    return source.profiles().stream()
        .map(ColumnProfile::locale)
        .allMatch(
            own ->
                own.decimal().equals(file.decimal()) && own.dateOrder().equals(file.dateOrder()));
  }
}
