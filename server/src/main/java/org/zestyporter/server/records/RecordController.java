package org.zestyporter.server.records;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.propertyeditors.StringArrayPropertyEditor;
import org.springframework.web.bind.WebDataBinder;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.InitBinder;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zestyporter.core.application.Called;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.KeyText;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Values;
import org.zestyporter.server.connection.ConnectionService;
import org.zestyporter.server.web.Asked;

/** Shows the application's records as they are. */
@RestController
@RequestMapping("/api/connections/{connection}/tables/{table}")
class RecordController {
  private static final int MAX_PAGE = 500;

  private final ConnectionService connections;

  RecordController(ConnectionService connections) {
    this.connections = connections;
  }

  /** A comma in a key parts nothing: each is a parameter of its own. */
  @InitBinder
  void takeKeysWhole(WebDataBinder binder) {
    binder.registerCustomEditor(String[].class, new StringArrayPropertyEditor(null));
  }

  /** A record with its primary key, a {@link KeyText}. */
  record RecordView(String key, List<@Nullable String> values) {}

  record RecordPage(List<String> fields, long total, List<RecordView> records) {}

  /**
   * A page of records.
   *
   * @param key only the records of these keys, each a {@link KeyText}
   */
  @GetMapping("/records")
  RecordPage page(
      @PathVariable String connection,
      @PathVariable String table,
      @RequestParam(required = false) @Nullable String search,
      @RequestParam(required = false) String @Nullable [] key,
      @RequestParam(defaultValue = "0") long offset,
      @RequestParam(defaultValue = "100") int limit) {
    Database database = connections.database(connection);
    TableInfo info = database.table(table);
    List<String> fields = info.fields().stream().map(FieldInfo::name).toList();
    if (key != null && key.length > 0) {
      List<RecordView> found = fetch(database, info, key);
      return new RecordPage(fields, found.size(), found);
    }
    String wanted = search == null || search.isBlank() ? null : search.strip();
    List<RecordView> records =
        database.page(info, wanted, Asked.from(offset), Asked.count(limit, MAX_PAGE)).stream()
            .map(values -> view(info, values))
            .toList();
    return new RecordPage(fields, database.count(info, wanted), records);
  }

  /** What records are called, by key. */
  @GetMapping("/labels")
  Map<String, String> labels(
      @PathVariable String connection, @PathVariable String table, @RequestParam String[] key) {
    Database database = connections.database(connection);
    TableInfo info = database.table(table);
    List<Integer> shown = Called.of(info).stream().map(info.fields()::indexOf).toList();
    Map<String, String> labels = new LinkedHashMap<>();
    for (RecordView record : fetch(database, info, key)) {
      labels.put(
          record.key(),
          shown.stream()
              .map(i -> record.values().get(i))
              .filter(Objects::nonNull)
              .collect(Collectors.joining(" ")));
    }
    return labels;
  }

  private static List<RecordView> fetch(Database database, TableInfo table, String[] keys) {
    List<List<Object>> wanted = new ArrayList<>();
    for (String key : Arrays.copyOf(keys, Math.min(MAX_PAGE, keys.length))) {
      List<Object> parts = table.key(key);
      if (parts == null) {
        throw ErrorCode.NO_SUCH_RECORD.error("There is no record " + Asked.shown(key) + ".");
      }
      wanted.add(parts);
    }
    Records found = database.fetch(table, wanted);
    return wanted.stream()
        .map(found::values)
        .filter(Objects::nonNull)
        .map(v -> view(table, v))
        .toList();
  }

  private static RecordView view(TableInfo table, Object[] values) {
    List<Object> parts = new ArrayList<>();
    for (FieldInfo field : table.fields(table.primaryKey())) {
      parts.add(values[table.fields().indexOf(field)]);
    }
    return new RecordView(KeyText.of(parts), Arrays.stream(values).map(Values::text).toList());
  }
}
