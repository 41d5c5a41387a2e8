package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonValue;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import org.zestyporter.core.value.Alike;
import tools.jackson.databind.JsonNode;

/**
 * Finds every mistake in a document of ours at once: its place, what is allowed there, and the word
 * that was probably meant. What is allowed is read off the records that the document is made of.
 */
final class JsonMistakes {
  private static final int MOST = 20;
  private static final int LISTED = 60;

  private final List<String> mistakes = new ArrayList<>();
  private final Map<Class<?>, Map<String, Type>> parts = new HashMap<>();
  private final Map<Class<?>, List<String>> words = new HashMap<>();
  private final Map<Class<?>, Type> written = new HashMap<>();

  private JsonMistakes() {}

  /** What is written for a type that is not written as it is. */
  private static Type writtenFor(Class<?> type) {
    return Arrays.stream(type.getMethods())
        .filter(m -> m.isAnnotationPresent(JsonCreator.class))
        .map(m -> m.getGenericParameterTypes()[0])
        .findFirst()
        .orElseThrow();
  }

  /** The mistakes of a document that is to become a record, in the order of the document. */
  static List<String> of(JsonNode document, Class<?> type) {
    JsonMistakes found = new JsonMistakes();
    found.check(document, type, "");
    List<String> all = found.mistakes;
    return all.size() <= MOST ? all : all.subList(0, MOST);
  }

  private void check(JsonNode node, Type type, String place) {
    if (node.isNull()) {
      return;
    }
    Class<?> raw =
        type instanceof ParameterizedType p ? (Class<?>) p.getRawType() : (Class<?>) type;
    if (Collection.class.isAssignableFrom(raw)) {
      if (!node.isArray()) {
        say(place, "a list in [ ] belongs here, not " + shown(node));
        return;
      }
      for (int i = 0; i < node.size(); i++) {
        check(node.get(i), argument(type, 0), place + "[" + i + "]");
      }
    } else if (Map.class.isAssignableFrom(raw)) {
      if (!node.isObject()) {
        say(place, "names with values in { } belong here, not " + shown(node));
        return;
      }
      node.properties().forEach(p -> check(p.getValue(), argument(type, 1), at(place, p.getKey())));
    } else if (raw.isInterface()) {
      check(node, written.computeIfAbsent(raw, JsonMistakes::writtenFor), place);
    } else if (raw.isRecord()) {
      checkRecord(node, raw, place);
    } else if (raw.isEnum()) {
      checkWord(node, words.computeIfAbsent(raw, JsonMistakes::wordsOf), place);
    } else {
      checkValue(node, raw, place);
    }
  }

  private static Type argument(Type type, int index) {
    return type instanceof ParameterizedType p ? p.getActualTypeArguments()[index] : String.class;
  }

  private void checkRecord(JsonNode node, Class<?> type, String place) {
    if (!node.isObject()) {
      say(place, "names with values in { } belong here, not " + shown(node));
      return;
    }
    Map<String, Type> parts = this.parts.computeIfAbsent(type, JsonMistakes::partsOf);
    node.properties()
        .forEach(
            p -> {
              Type part = parts.get(p.getKey());
              if (part == null) {
                say(place, "there is no “" + p.getKey() + "”" + hint(p.getKey(), parts.keySet()));
              } else {
                check(p.getValue(), part, at(place, p.getKey()));
              }
            });
  }

  /** The types of a record's parts by their names in documents. */
  private static Map<String, Type> partsOf(Class<?> type) {
    Map<String, Type> parts = new LinkedHashMap<>();
    for (RecordComponent part : type.getRecordComponents()) {
      if (part.getAccessor().getAnnotation(JsonIgnore.class) == null) {
        parts.put(part.getName(), part.getGenericType());
      }
    }
    return parts;
  }

  private void checkWord(JsonNode node, List<String> words, String place) {
    if (!node.isString() || !words.contains(node.asString())) {
      say(
          place,
          shown(node)
              + " is not allowed here"
              + hint(node.isString() ? node.asString() : "", words));
    }
  }

  private void checkValue(JsonNode node, Class<?> type, String place) {
    if (type == boolean.class || type == Boolean.class) {
      if (!node.isBoolean()) {
        say(place, "true or false belongs here, not " + shown(node));
      }
    } else if (type == String.class) {
      if (!node.isValueNode()) {
        say(place, "a text belongs here, not " + shown(node));
      }
    } else if (type == int.class
        || type == Integer.class
        || type == long.class
        || type == Long.class) {
      if (!node.isIntegralNumber()) {
        say(place, "a whole number belongs here, not " + shown(node));
      } else if (!(type == int.class || type == Integer.class
          ? node.canConvertToInt()
          : node.canConvertToLong())) {
        say(place, shown(node) + " is too large a number");
      }
    }
  }

  private static String hint(String word, Collection<String> allowed) {
    List<String> near = Alike.ranked(word, allowed, 1);
    String meant =
        !near.isEmpty() && Alike.isNear(word, near.get(0))
            ? "; probably “" + near.get(0) + "” is meant"
            : "";
    return meant
        + ". Allowed are "
        + String.join(", ", new TreeSet<>(allowed).stream().limit(LISTED).toList());
  }

  /** The words of an enumeration, as they stand in documents. */
  private static List<String> wordsOf(Class<?> type) {
    Method word =
        Arrays.stream(type.getMethods())
            .filter(m -> m.isAnnotationPresent(JsonValue.class))
            .findFirst()
            .orElse(null);
    return Arrays.stream(type.getEnumConstants()).map(c -> word(c, word)).toList();
  }

  private static String word(Object constant, Method word) {
    try {
      return word == null ? constant.toString() : String.valueOf(word.invoke(constant));
    } catch (IllegalAccessException | InvocationTargetException e) {
      return constant.toString();
    }
  }

  private static String at(String place, String name) {
    return place.isEmpty() ? name : place + "." + name;
  }

  private static String shown(JsonNode node) {
    if (node.isObject()) {
      return "{ }";
    }
    if (node.isArray()) {
      return "[ ]";
    }
    String text = node.asString();
    String cut = text.length() > LISTED ? text.substring(0, LISTED) + "…" : text;
    return node.isString() ? "“" + cut + "”" : cut;
  }

  private void say(String place, String what) {
    mistakes.add((place.isEmpty() ? "At the top" : "At " + place) + ": " + what + ".");
  }
}
