package org.zestyporter.core.source.parse;

import java.io.IOException;
import java.io.Reader;
import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Letters;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Values;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonToken;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * JSON (RFC 8259): an array, one object a line, or an array found inside of an object. Attributes
 * of nested objects become columns with dotted names. Of nested arrays one can be chosen to make
 * the rows, the attributes around it repeating; others are kept as JSON text.
 */
public final class JsonParser implements RowParser {
  /** Name of the array that is the whole file, or of the objects that stand one a line. */
  static final String WHOLE = ".";

  private static final int DEEPEST = 200;
  private static final int SEARCHED_TOKENS = 300_000;
  private static final int WIDEST_NUMBER = 60;

  private static final JsonMapper MAPPER =
      JsonMapper.builder(
              JsonFactory.builder()
                  .streamReadConstraints(
                      StreamReadConstraints.builder()
                          .maxNestingDepth(DEEPEST)
                          .maxStringLength(DelimitedParser.LONGEST_CELL)
                          .build())
                  .build())
          // the tokens behind an element belong to the next one
          .disable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
          .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
          .build();

  /** An array that can make the rows. */
  private static final class Candidate {
    private long elements;
    private boolean objects;
    private boolean nested;
  }

  /** The arrays of a file, the one with most elements first among those not inside another. */
  public static List<SheetInfo> arrays(Path file, Charset charset) throws IOException {
    Map<String, Candidate> found = new LinkedHashMap<>();
    boolean complete =
        walk(
            file,
            charset,
            new ReadProgress(),
            (path, element, line) -> {
              Candidate candidate = found.computeIfAbsent(path, p -> new Candidate());
              candidate.elements++;
              candidate.objects |= element.isObject() || element.isArray();
              if (element.isObject()) {
                nested(element, path.equals(WHOLE) ? "" : path + ".", found);
              }
            },
            SEARCHED_TOKENS);
    boolean anyObjects = found.values().stream().anyMatch(c -> c.objects);
    return found.entrySet().stream()
        .filter(e -> e.getValue().objects || !anyObjects)
        .sorted(
            java.util.Comparator.comparing((Map.Entry<String, Candidate> e) -> e.getValue().nested)
                .thenComparing(e -> -e.getValue().elements))
        .map(
            e ->
                new SheetInfo(
                    e.getKey(), false, complete ? Long.valueOf(e.getValue().elements) : null, null))
        .toList();
  }

  private static void nested(JsonNode object, String prefix, Map<String, Candidate> found) {
    for (Map.Entry<String, JsonNode> property : object.properties()) {
      JsonNode value = property.getValue();
      String path = prefix + property.getKey();
      if (value.isObject()) {
        nested(value, path + ".", found);
      } else if (value.isArray() && !value.isEmpty() && value.get(0).isObject()) {
        Candidate candidate = found.computeIfAbsent(path, p -> new Candidate());
        candidate.nested = true;
        candidate.objects = true;
        candidate.elements += value.size();
        value.forEach(inner -> nested(inner, path + ".", found));
      }
    }
  }

  @Override
  public Told parse(Path file, Reading reading, RowSink sink, ReadProgress progress)
      throws IOException {
    Rows rows = new Rows(reading.sheet(), sink);
    walk(file, TextFiles.charset(reading.encoding()), progress, rows, Long.MAX_VALUE);
    List<Evidence> evidence = new ArrayList<>();
    if (rows.without > 0) {
      evidence.add(
          new Evidence(
              "rows",
              rows.inner,
              String.format(
                  Locale.ROOT, "%,d elements have none of these and make no row", rows.without)));
    }
    return new Told(List.copyOf(rows.columns.keySet()), List.of(), evidence, List.of());
  }

  @FunctionalInterface
  private interface Elements {
    void element(String path, JsonNode element, long line) throws IOException;
  }

  /**
   * Goes through the elements of all arrays that are not inside an element.
   *
   * @return false if it ended early
   */
  private static boolean walk(
      Path file, Charset charset, ReadProgress progress, Elements elements, long limit)
      throws IOException {
    try (Reader in = TextFiles.reader(file, charset, progress);
        tools.jackson.core.JsonParser json = MAPPER.createParser(in)) {
      Walk walk = new Walk(json, elements, limit, oneALine(file, charset));
      while (json.nextToken() != null && walk.left > 0) {
        walk.root();
      }
      return walk.left > 0;
    } catch (JacksonException e) {
      throw unreadable(e);
    }
  }

  /** True if the first two lines are an object each. */
  private static boolean oneALine(Path file, Charset charset) throws IOException {
    List<String> lines =
        TextFiles.lines(TextFiles.headText(TextFiles.head(file), charset), false, 20).stream()
            .map(String::strip)
            .filter(l -> !l.isEmpty())
            .toList();
    return lines.size() > 1
        && lines.get(0).startsWith("{")
        && lines.get(0).endsWith("}")
        && lines.get(1).startsWith("{");
  }

  private static PorterException unreadable(JacksonException e) {
    String where =
        e.getLocation() == null
            ? ""
            : String.format(
                Locale.ROOT,
                " in line %,d, character %,d",
                e.getLocation().getLineNr(),
                e.getLocation().getColumnNr());
    boolean deep = String.valueOf(e.getOriginalMessage()).contains("nesting depth");
    return ErrorCode.UNREADABLE_JSON.error(
        deep
            ? "The JSON is nested more than "
                + DEEPEST
                + " levels deep"
                + where
                + "; this is no table."
            : "The JSON is broken or cut short" + where + ".",
        e);
  }

  /** Follows the tokens down to the arrays. */
  private static final class Walk {
    private final tools.jackson.core.JsonParser json;
    private final Elements elements;
    private final boolean lines;
    private long left;

    Walk(tools.jackson.core.JsonParser json, Elements elements, long limit, boolean lines) {
      this.json = json;
      this.lines = lines;
      this.elements = elements;
      this.left = limit;
    }

    void root() throws IOException {
      if (json.currentToken() == JsonToken.START_ARRAY && !lines) {
        array(WHOLE);
      } else if (json.currentToken() == JsonToken.START_OBJECT && !lines) {
        object();
      } else {
        take(WHOLE, json.currentTokenLocation().getLineNr());
      }
    }

    /** An object that is no element: its arrays are looked for, or it is itself a row. */
    private void object() throws IOException {
      long line = json.currentTokenLocation().getLineNr();
      Map<String, JsonNode> own = new LinkedHashMap<>();
      boolean hasArrays = false;
      while (json.nextToken() == JsonToken.PROPERTY_NAME && left > 0) {
        String name = json.currentName();
        JsonToken value = json.nextToken();
        if (value == JsonToken.START_ARRAY) {
          hasArrays |= arrayOrValue(own, name);
        } else {
          own.put(name, MAPPER.readTree(json));
          left -= 4;
        }
      }
      if (!hasArrays && !own.isEmpty()) {
        tools.jackson.databind.node.ObjectNode row = MAPPER.createObjectNode();
        own.forEach(row::set);
        elements.element(WHOLE, row, line);
      }
    }

    /** True if the array holds objects, which make rows; other arrays are values. */
    private boolean arrayOrValue(Map<String, JsonNode> own, String name) throws IOException {
      JsonToken first = json.nextToken();
      if (first != JsonToken.START_OBJECT) {
        tools.jackson.databind.node.ArrayNode values = MAPPER.createArrayNode();
        for (JsonToken t = first; t != JsonToken.END_ARRAY && t != null; t = json.nextToken()) {
          values.add((JsonNode) MAPPER.readTree(json));
          left -= 2;
        }
        own.put(name, values);
        return false;
      }
      long number = 0;
      for (JsonToken t = first; t != JsonToken.END_ARRAY && left > 0; t = json.nextToken()) {
        requireMore(t);
        number++;
        take(name, number);
      }
      return true;
    }

    private void array(String path) throws IOException {
      long number = 0;
      while (json.nextToken() != JsonToken.END_ARRAY && left > 0) {
        requireMore(json.currentToken());
        number++;
        take(path, number);
      }
    }

    private static void requireMore(JsonToken token) {
      if (token == null) {
        throw ErrorCode.UNREADABLE_JSON.error("The JSON is cut short.");
      }
    }

    private void take(String path, long line) throws IOException {
      JsonNode element = MAPPER.readTree(json);
      left -= 2L + 2L * element.size();
      elements.element(path, element, line);
    }
  }

  /** Makes rows of elements. */
  private static final class Rows implements Elements {
    private final String sheet;
    private final RowSink sink;
    private final Map<String, Integer> columns = new LinkedHashMap<>();
    private String inner = "";
    private long without;
    private long rows;

    Rows(String sheet, RowSink sink) {
      this.sheet = sheet;
      this.sink = sink;
    }

    @Override
    public void element(String path, JsonNode element, long line) throws IOException {
      if (sheet.equals(path)) {
        put(element, "");
        end(line);
      } else if (path.equals(WHOLE) || sheet.startsWith(path + ".")) {
        inner = path.equals(WHOLE) ? sheet : sheet.substring(path.length() + 1);
        long before = rows;
        expand(List.of(), element, inner, "", line);
        without += before == rows ? 1 : 0;
      }
    }

    private void end(long line) throws IOException {
      rows++;
      // elements of one line each keep their line; others are counted
      sink.endRow(inner.isEmpty() ? line : rows);
    }

    /** Rows of the array at a path below the element, each with the attributes around it. */
    private void expand(
        List<Object[]> outer, JsonNode element, String path, String prefix, long line)
        throws IOException {
      String array = arrayOn(element, path);
      if (array == null) {
        return;
      }
      List<Object[]> around = new ArrayList<>(outer);
      around.add(new Object[] {element, prefix, array});
      JsonNode values = at(element, array);
      String rest = path.length() > array.length() ? path.substring(array.length() + 1) : "";
      for (JsonNode value : values) {
        if (rest.isEmpty()) {
          for (Object[] each : around) {
            put((JsonNode) each[0], (String) each[1], (String) each[2]);
          }
          put(value, prefix + array + ".");
          end(line);
        } else {
          expand(around, value, rest, prefix + array + ".", line);
        }
      }
    }

    /** The first part of the path that leads to an array; null if none does. */
    private static String arrayOn(JsonNode element, String path) {
      for (int dot = path.indexOf('.', 1); ; dot = path.indexOf('.', dot + 1)) {
        String part = dot < 0 ? path : path.substring(0, dot);
        JsonNode node = at(element, part);
        if (node != null && node.isArray()) {
          return part;
        }
        if (dot < 0) {
          return null;
        }
      }
    }

    private static JsonNode at(JsonNode element, String path) {
      JsonNode direct = element.get(path);
      if (direct != null) {
        return direct;
      }
      int dot = path.indexOf('.');
      JsonNode first = dot < 0 ? null : element.get(path.substring(0, dot));
      return first == null ? null : at(first, path.substring(dot + 1));
    }

    private void put(JsonNode node, String prefix) {
      put(node, prefix, "");
    }

    /** Puts the attributes of a node; those under {@code leaveOut} are left out. */
    private void put(JsonNode node, String prefix, String leaveOut) {
      if (node.isObject()) {
        for (Map.Entry<String, JsonNode> property : node.properties()) {
          String name = property.getKey();
          if (name.equals(leaveOut)) {
            continue;
          }
          JsonNode value = property.getValue();
          if (value.isObject() && !value.isEmpty()) {
            String below =
                leaveOut.startsWith(name + ".") ? leaveOut.substring(name.length() + 1) : "";
            put(value, prefix + name + ".", below);
          } else {
            cell(prefix + name, value);
          }
        }
      } else if (node.isArray() && prefix.isEmpty()) {
        for (int i = 0; i < node.size(); i++) {
          cell("Column " + Letters.of(i), node.get(i));
        }
      } else {
        cell(prefix.isEmpty() ? "value" : prefix.substring(0, prefix.length() - 1), node);
      }
    }

    private void cell(String name, JsonNode value) {
      int column = columns.computeIfAbsent(name, n -> columns.size());
      if (column >= SheetErrors.MAX_COLUMNS) {
        throw ErrorCode.TOO_WIDE.error(
            "The elements have more than 16,384 different attributes.",
            "Bring the part of it that holds the rows.");
      }
      if (value.isNull() || value.isMissingNode()) {
        return;
      }
      sink.cell(column, cell(value));
    }

    private static Cell cell(JsonNode value) {
      if (value.isBoolean()) {
        return new Cell(Cell.Kind.BOOLEAN, value.asString());
      }
      if (value.isNumber()) {
        BigDecimal number = value.decimalValue();
        boolean sane =
            number.precision() < WIDEST_NUMBER && Math.abs(number.scale()) < WIDEST_NUMBER;
        return sane
            ? new Cell(Cell.Kind.NUMBER, Values.plain(number))
            : Cell.text(value.toString());
      }
      return Cell.text(value.isString() ? value.stringValue() : value.toString());
    }
  }
}
