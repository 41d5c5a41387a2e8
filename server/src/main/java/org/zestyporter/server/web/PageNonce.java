package org.zestyporter.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.security.SecureRandom;
import java.util.Base64;

/**
 * A word that only one answer has, by which its page shows that a style sheet is its own (Content
 * Security Policy Level 3, nonces).
 */
public final class PageNonce {
  private static final String NAME = PageNonce.class.getName();
  private static final SecureRandom RANDOM = new SecureRandom();

  private PageNonce() {}

  /** The word of a request's answer, the same each time. */
  public static String of(HttpServletRequest request) {
    if (request.getAttribute(NAME) instanceof String known) {
      return known;
    }
    byte[] bytes = new byte[16];
    RANDOM.nextBytes(bytes);
    String fresh = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    request.setAttribute(NAME, fresh);
    return fresh;
  }
}
