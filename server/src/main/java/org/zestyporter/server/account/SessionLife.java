package org.zestyporter.server.account;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Duration;
import org.springframework.web.filter.OncePerRequestFilter;

/** Ends a sign-in after a time, however busy it is; the idle time is the container's. */
final class SessionLife extends OncePerRequestFilter {
  private static final String BEGUN = "porter.begun";

  private final Duration life;

  SessionLife(Duration life) {
    this.life = life;
  }

  static void begin(HttpSession session) {
    session.setAttribute(BEGUN, System.currentTimeMillis());
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    HttpSession session = request.getSession(false);
    if (session != null
        && session.getAttribute(BEGUN) instanceof Long begun
        && System.currentTimeMillis() - begun > life.toMillis()) {
      session.invalidate();
    }
    chain.doFilter(request, response);
  }
}
