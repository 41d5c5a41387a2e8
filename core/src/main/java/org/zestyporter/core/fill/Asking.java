package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/**
 * Gathers what compiled fills have to know of the application for some rows, each thing once.
 *
 * <pre>{@code
 * Asking asking = new Asking();
 * rows.forEach(row -> fill.ask(row, asking));
 * for (Inquiry inquiry : asking.inquiries()) {
 *   application.look(inquiry.ask(), inquiry.learn());
 *   inquiry.answered().run();
 * }
 * }</pre>
 */
public final class Asking {
  private final Map<Links, Map<String, List<Object>>> wanted = new IdentityHashMap<>();
  private final List<Inquiry> beforehand = new ArrayList<>();

  void want(Links links, List<Object> parts) {
    String prepared = links.prepared(parts);
    if (!links.isKnown(prepared)) {
      wanted.computeIfAbsent(links, l -> new HashMap<>()).putIfAbsent(prepared, parts);
    }
  }

  void add(Inquiry inquiry) {
    beforehand.add(inquiry);
  }

  /** What is not known yet. */
  public List<Inquiry> inquiries() {
    List<Inquiry> all = new ArrayList<>(beforehand);
    wanted.forEach((links, values) -> all.add(links.inquiry(values)));
    return all;
  }
}
