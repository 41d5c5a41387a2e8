package org.zestyporter.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseCookie;
import org.springframework.http.ResponseEntity;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.web.bind.annotation.CookieValue;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.server.web.ErrorAdvice;
import org.zestyporter.server.web.SecurityLog;

/** Signing in and out. */
@RestController
@RequestMapping("/api/session")
class SignIn {
  private final AuthenticationManager manager;
  private final SecurityContextRepository contexts;
  private static final String TOKEN = "PORTER_KNOWN";

  private final AccountService accounts;
  private final SignInGuard guard;
  private final SecurityLog log;

  SignIn(
      AuthenticationManager manager,
      SecurityContextRepository contexts,
      AccountService accounts,
      SignInGuard guard,
      SecurityLog log) {
    this.manager = manager;
    this.contexts = contexts;
    this.accounts = accounts;
    this.guard = guard;
    this.log = log;
  }

  record Credentials(
      @NotBlank @Size(max = 200) String name, @NotBlank @Size(max = 1_000) String password) {}

  record Person(String name, String shownName) {}

  @GetMapping
  Person who(Principal principal) {
    return person(principal.getName());
  }

  @PostMapping
  Person signIn(
      @Valid @RequestBody Credentials credentials,
      @CookieValue(name = TOKEN, required = false) @Nullable String token,
      HttpServletRequest request,
      HttpServletResponse response) {
    String name = credentials.name();
    String from = request.getRemoteAddr();
    Duration wait = guard.wait(name, from, token);
    if (!wait.isZero() && !wait.isNegative()) {
      log.note("sign-in-slowed", name, from, null);
      throw new TooManyAttempts(wait);
    }
    try {
      Authentication authentication =
          manager.authenticate(
              UsernamePasswordAuthenticationToken.unauthenticated(name, credentials.password()));
      enter(authentication, request, response);
      String known = guard.succeeded(name, from, token);
      log.note("sign-in", authentication.getName(), from, null);
      response.addHeader(
          HttpHeaders.SET_COOKIE,
          ResponseCookie.from(TOKEN, known)
              .httpOnly(true)
              .secure(request.isSecure())
              .sameSite("Strict")
              .path("/api/session")
              .maxAge(SignInGuard.TOKEN_LIFE)
              .build()
              .toString());
      return person(authentication.getName());
    } catch (AuthenticationException e) {
      guard.failed(name, from, token);
      log.note("sign-in-failed", name, from, null);
      throw e;
    }
  }

  private void enter(
      Authentication authentication, HttpServletRequest request, HttpServletResponse response) {
    SessionLife.begin(request.getSession(true));
    request.changeSessionId();
    SecurityContext context = SecurityContextHolder.createEmptyContext();
    context.setAuthentication(authentication);
    SecurityContextHolder.setContext(context);
    contexts.saveContext(context, request, response);
  }

  /** Somebody has to wait before the next attempt. */
  private static final class TooManyAttempts extends RuntimeException {
    private static final long serialVersionUID = 1L;
    private final Duration wait;

    TooManyAttempts(Duration wait) {
      this.wait = wait;
    }
  }

  @ExceptionHandler
  ResponseEntity<ProblemDetail> tooMany(TooManyAttempts e) {
    long seconds = e.wait.toSeconds() + 1;
    ProblemDetail detail =
        ErrorAdvice.detail(
            HttpStatus.TOO_MANY_REQUESTS,
            ErrorCode.TOO_MANY_ATTEMPTS,
            "There were too many attempts with a wrong password. Wait "
                + (seconds < 60 ? seconds + " seconds" : (seconds + 59) / 60 + " minutes")
                + ", then try again.");
    return ResponseEntity.status(HttpStatus.TOO_MANY_REQUESTS)
        .header(HttpHeaders.RETRY_AFTER, Long.toString(seconds))
        .contentType(MediaType.APPLICATION_PROBLEM_JSON)
        .body(detail);
  }

  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void signOut(HttpServletRequest request, Principal principal) {
    log.note("sign-out", principal.getName(), request.getRemoteAddr(), null);
    request.getSession().invalidate();
    SecurityContextHolder.clearContext();
  }

  @ExceptionHandler
  ProblemDetail refused(AuthenticationException e) {
    return ErrorAdvice.detail(
        HttpStatus.UNAUTHORIZED,
        ErrorCode.WRONG_PASSWORD,
        "The name or the password is not right. Try again.");
  }

  private Person person(String name) {
    return new Person(name, accounts.shownName(name));
  }
}
