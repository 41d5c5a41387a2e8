package org.zestyporter.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import java.security.Principal;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out. */
@RestController
@RequestMapping("/api/session")
class SignIn {
  private final AuthenticationManager manager;
  private final SecurityContextRepository contexts;
  private final AccountService accounts;

  SignIn(
      AuthenticationManager manager, SecurityContextRepository contexts, AccountService accounts) {
    this.manager = manager;
    this.contexts = contexts;
    this.accounts = accounts;
  }

  record Credentials(@NotBlank String name, @NotBlank String password) {}

  record Person(String name, String shownName) {}

  @GetMapping
  Person who(Principal principal) {
    return person(principal.getName());
  }

  @PostMapping
  Person signIn(
      @Valid @RequestBody Credentials credentials,
      HttpServletRequest request,
      HttpServletResponse response) {
    Authentication authentication =
        manager.authenticate(
            UsernamePasswordAuthenticationToken.unauthenticated(
                credentials.name(), credentials.password()));
    request.getSession(true);
    request.changeSessionId();
    SecurityContext context = SecurityContextHolder.createEmptyContext();
    context.setAuthentication(authentication);
    SecurityContextHolder.setContext(context);
    contexts.saveContext(context, request, response);
    return person(authentication.getName());
  }

  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void signOut(HttpServletRequest request) {
    request.getSession().invalidate();
    SecurityContextHolder.clearContext();
  }

  @ExceptionHandler
  ProblemDetail refused(AuthenticationException e) {
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(
            HttpStatus.UNAUTHORIZED, "The name or the password is not right. Try again.");
    detail.setProperty("code", "wrong-password");
    return detail;
  }

  private Person person(String name) {
    return new Person(name, accounts.shownName(name));
  }
}
