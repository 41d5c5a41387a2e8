package org.zestyporter.server.web;

import static org.hamcrest.Matchers.startsWith;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.content;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.jsonPath;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.io.EOFException;
import java.io.IOException;
import org.apache.catalina.connector.ClientAbortException;
import org.junit.jupiter.api.Test;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.setup.MockMvcBuilders;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** What nobody foresaw is told in a sentence too. */
class ErrorAdviceTest {
  @RestController
  static class Failing {
    @GetMapping("/memory")
    void memory() {
      throw new OutOfMemoryError("Java heap space");
    }

    @GetMapping("/disk")
    void disk() throws IOException {
      throw new IOException("No space left on device");
    }

    @GetMapping("/mistake")
    void mistake() {
      throw new IllegalStateException("at org.zestyporter.Secret");
    }

    @GetMapping("/left")
    void left() throws IOException {
      throw new ClientAbortException(new EOFException());
    }
  }

  private final MockMvc server =
      MockMvcBuilders.standaloneSetup(new Failing()).setControllerAdvice(new ErrorAdvice()).build();

  private void told(String path, int status, String code, String begins) throws Exception {
    server
        .perform(get(path))
        .andExpect(status().is(status))
        .andExpect(jsonPath("$.code").value(code))
        .andExpect(jsonPath("$.detail").value(startsWith(begins)));
  }

  @Test
  void wantOfMemoryOrDiskIsSaidSo() throws Exception {
    told("/memory", 507, "too-much", "The server has not enough memory for this. Nothing was");
    told("/disk", 507, "no-room", "The disk of the data folder is full");
  }

  @Test
  void mistakesOfOursStayInTheLog() throws Exception {
    told("/mistake", 500, "internal", "Something went wrong on the server. Nothing was written");
  }

  @Test
  void whoHasLeftIsToldNothing() throws Exception {
    server.perform(get("/left")).andExpect(content().string(""));
  }
}
