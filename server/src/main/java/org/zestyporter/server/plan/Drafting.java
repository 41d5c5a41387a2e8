package org.zestyporter.server.plan;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.zestyporter.core.application.ToldLink;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.KnownRecords;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.draft.Redraft;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.server.connection.ConnectionService;

/** Drafts plans, by what earlier drafts have come to know of each database and what people did. */
@Component
class Drafting {
  private static final int DATABASES_KEPT = 100;

  private final PlanMapper plans;
  private final ConnectionService connections;
  private final Cache<Database, KnownRecords> known =
      Caffeine.newBuilder().weakKeys().maximumSize(DATABASES_KEPT).build();

  Drafting(PlanMapper plans, ConnectionService connections) {
    this.plans = plans;
    this.connections = connections;
  }

  /** A draft of a file by what is known of a database alone. */
  PlanDraft draft(Database database, SourceTable rows) {
    return draft(database, rows, List.of());
  }

  private PlanDraft draft(Database database, SourceTable rows, List<Fill> memory) {
    return new PlanDraft(known(database), rows, memory);
  }

  /** What earlier drafts have come to know of a database, whatever links are told of it. */
  KnownRecords known(Database database) {
    return known.get(database.with(List.of()), KnownRecords::new).of(database);
  }

  /**
   * What is proposed for a table, also by what people have done before.
   *
   * @param but the plan that is drafted anew, which is no memory of its own
   */
  ProposedTable draft(
      Database database, SourceTable rows, String connection, String table, @Nullable Long but) {
    return draft(database, rows, memory(connection, table, but)).draft(database.table(table));
  }

  /** What is proposed for tables that belong to a drafted one and take columns which it leaves. */
  List<ProposedTable> besides(Database database, SourceTable rows, ProposedTable draft) {
    List<Destination> all = new ArrayList<>(List.of(draft.destination()));
    List<ProposedTable> besides = new ArrayList<>();
    for (ProposedTable child : draft(database, rows).children(draft)) {
      Destination named = named(child.destination(), all);
      all.add(named);
      besides.add(new ProposedTable(named, child.evidence(), child.score()));
    }
    return besides;
  }

  /** A destination under a name that none of some others has. */
  static Destination named(Destination destination, List<Destination> others) {
    Set<String> taken = others.stream().map(Destination::label).collect(Collectors.toSet());
    String name = destination.label();
    for (int i = 2; taken.contains(name); i++) {
      name = destination.label() + " " + i;
    }
    return name.equals(destination.label()) ? destination : destination.withName(name);
  }

  /** Forgets what is known: records have changed. */
  void forget() {
    known.invalidateAll();
  }

  /**
   * What people have done with columns before, for this table, the latest first.
   *
   * @param but the plan that is drafted anew, which is no memory of its own
   */
  private List<Fill> memory(String connection, String table, @Nullable Long but) {
    return earlier(but)
        .filter(p -> connection.equals(p.connection()))
        .flatMap(p -> p.destinations().stream())
        .filter(d -> d.table().equals(table))
        .flatMap(d -> d.fills().stream())
        .filter(f -> !f.awaitsConfirmation())
        .toList();
  }

  /** All plans there are, the latest first. */
  List<Plan> earlier() {
    return earlier(null).toList();
  }

  private Stream<Plan> earlier(@Nullable Long but) {
    return plans.all().stream()
        .filter(r -> !r.id().equals(but))
        .map(r -> PlanJson.read(r.document()));
  }

  /** A connection's database with the links that earlier plans tell, for each field the latest. */
  Database database(String connection, List<Plan> earlier) {
    Map<String, ToldLink> byField = new LinkedHashMap<>();
    earlier.stream()
        .filter(p -> connection.equals(p.connection()))
        .flatMap(p -> p.links().stream())
        .forEach(
            l -> {
              String place = (l.table() + "." + l.field()).toLowerCase(Locale.ROOT);
              byField.putIfAbsent(place, l);
            });
    return connections.database(connection).with(List.copyOf(byField.values()));
  }

  /** A plan with what a draft makes of it. */
  record Drafted(
      Plan plan, List<String> followed, String evidenceJson, @Nullable String draftedJson) {}

  /**
   * Lets a plan follow a new draft where its file is read otherwise than before.
   *
   * @param old the plan as it was
   */
  Drafted anew(PlanRecord old, Plan wanted, SourceTable rows) {
    Plan before = PlanJson.read(old.document());
    boolean due =
        old.draftedJson() != null
            && wanted.connection() != null
            && wanted.connection().equals(before.connection())
            && Redraft.isDue(before.reading(), wanted.reading());
    int at = due ? drafted(old, wanted) : -1;
    if (at < 0) {
      return new Drafted(wanted, List.of(), old.evidenceJson(), old.draftedJson());
    }
    List<Destination> destinations = new ArrayList<>(wanted.destinations());
    Destination last = draftOf(old);
    Database database = connections.database(wanted.connection()).with(wanted.links());
    ProposedTable anew = draft(database, rows, wanted.connection(), last.table(), old.id());
    Redraft.Followed followed = Redraft.follow(destinations.get(at), last, anew.destination());
    destinations.set(at, followed.destination());
    return new Drafted(
        wanted.withDestinations(destinations),
        followed.fields(),
        DraftEvidence.read(old.evidenceJson()).withFirst(anew.evidence()).write(),
        PlanJson.MAPPER.writeValueAsString(anew.destination()));
  }

  private static Destination draftOf(PlanRecord record) {
    return PlanJson.MAPPER.readValue(record.draftedJson(), Destination.class);
  }

  /** Number of the destination that was drafted; -1 if the plan fills its table no more. */
  int drafted(PlanRecord record, Plan plan) {
    if (record.draftedJson() == null) {
      return 0;
    }
    List<String> tables = plan.destinations().stream().map(Destination::table).toList();
    return tables.indexOf(draftOf(record).table());
  }
}
