package org.zestyporter.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockFilterChain;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockHttpSession;

class SessionLifeTest {

  private static boolean ends(Duration life, Duration age) throws Exception {
    MockHttpSession session = new MockHttpSession();
    SessionLife.begin(session);
    String name = session.getAttributeNames().nextElement();
    session.setAttribute(name, (Long) session.getAttribute(name) - age.toMillis());
    MockHttpServletRequest request = new MockHttpServletRequest();
    request.setSession(session);
    MockFilterChain chain = new MockFilterChain();
    new SessionLife(life).doFilter(request, new MockHttpServletResponse(), chain);
    assertThat(chain.getRequest()).as("the request goes on, signed in or not").isNotNull();
    return session.isInvalid();
  }

  @Test
  void aSessionEndsHoweverBusyItIs() throws Exception {
    assertThat(ends(Duration.ofHours(24), Duration.ofHours(23))).isFalse();
    assertThat(ends(Duration.ofHours(24), Duration.ofHours(25))).isTrue();
  }

  @Test
  void whoeverHasNoSessionIsLeftAlone() throws Exception {
    MockFilterChain chain = new MockFilterChain();
    MockHttpServletRequest request = new MockHttpServletRequest();
    new SessionLife(Duration.ofHours(1)).doFilter(request, new MockHttpServletResponse(), chain);
    assertThat(request.getSession(false)).isNull();
    assertThat(chain.getRequest()).isNotNull();
  }
}
