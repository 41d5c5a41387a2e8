package org.zestyporter.server.web;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.AuthenticationException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.zestyporter.core.value.PorterException;

/** Turns errors into problem details (RFC 9457) in the user's words. */
@RestControllerAdvice
class ErrorAdvice {
  private static final Logger LOG = LoggerFactory.getLogger(ErrorAdvice.class);

  @ExceptionHandler
  ProblemDetail porter(PorterException e) {
    HttpStatus status =
        switch (e.kind()) {
          case INPUT -> HttpStatus.UNPROCESSABLE_ENTITY;
          case MISSING -> HttpStatus.NOT_FOUND;
          case CONFLICT -> HttpStatus.CONFLICT;
          case DATABASE -> HttpStatus.BAD_GATEWAY;
        };
    return detail(status, e.code(), e.getMessage());
  }

  @ExceptionHandler
  ProblemDetail invalid(MethodArgumentNotValidException e) {
    String message =
        String.join(
            " ",
            e.getFieldErrors().stream()
                .map(f -> f.getField() + ": " + f.getDefaultMessage() + ".")
                .toList());
    return detail(HttpStatus.UNPROCESSABLE_ENTITY, "invalid", message);
  }

  @ExceptionHandler({
    HttpMessageNotReadableException.class,
    MethodArgumentTypeMismatchException.class
  })
  ProblemDetail unreadable(Exception e) {
    LOG.debug("unreadable request", e);
    return detail(HttpStatus.BAD_REQUEST, "unreadable", "The request could not be understood.");
  }

  @ExceptionHandler
  void gone(AsyncRequestNotUsableException e) {
    LOG.debug("the browser has left", e);
  }

  @ExceptionHandler
  ProblemDetail other(Exception e) throws Exception {
    if (e instanceof AuthenticationException || e instanceof AccessDeniedException) {
      throw e;
    }
    if (e instanceof ErrorResponse response && response.getStatusCode().is4xxClientError()) {
      return detail(
          HttpStatus.valueOf(response.getStatusCode().value()),
          "request",
          "The server does not know this request.");
    }
    LOG.error("unexpected error", e);
    return detail(
        HttpStatus.INTERNAL_SERVER_ERROR,
        "internal",
        "Something went wrong on the server. Nothing was written; the server's log says more.");
  }

  private static ProblemDetail detail(HttpStatus status, String code, String message) {
    ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, message);
    detail.setProperty("code", code);
    return detail;
  }
}
