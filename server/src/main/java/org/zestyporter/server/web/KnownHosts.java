package org.zestyporter.server.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.zestyporter.server.Settings;

/**
 * Answers only to the names that the server is known by, so that no other site can have a browser
 * talk to it under a name of its own.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class KnownHosts extends OncePerRequestFilter {
  private static final int MISDIRECTED = 421;

  private final List<String> hosts;
  private final SecurityLog log;

  KnownHosts(Settings settings, SecurityLog log) {
    this.hosts = settings.hosts().stream().map(h -> h.toLowerCase(Locale.ROOT)).toList();
    this.log = log;
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    String host = String.valueOf(request.getServerName()).toLowerCase(Locale.ROOT);
    String bracketed = host.contains(":") && !host.startsWith("[") ? "[" + host + "]" : host;
    if (hosts.contains(bracketed)) {
      chain.doFilter(request, response);
      return;
    }
    log.note("host-refused", null, request.getRemoteAddr(), host);
    response.setStatus(MISDIRECTED);
    response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
    response
        .getWriter()
        .write(
            "{\"status\":421,\"title\":\"Misdirected Request\",\"code\":\"unknown-host\",\"detail\":"
                + "\"This server is not known by the name that was asked for. Names are set by"
                + " porter.hosts.\"}");
  }
}
