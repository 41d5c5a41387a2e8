package org.zestyporter.server.web;

import java.util.Locale;
import org.apache.catalina.connector.ClientAbortException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataIntegrityViolationException;
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
import org.springframework.web.context.request.async.AsyncRequestTimeoutException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** Turns errors into problem details (RFC 9457) in the user's words. */
@RestControllerAdvice
public class ErrorAdvice {
  private static final Logger LOG = LoggerFactory.getLogger(ErrorAdvice.class);

  @ExceptionHandler
  ProblemDetail porter(PorterException e) {
    HttpStatus status =
        switch (e.code().kind()) {
          case USER, DATA -> HttpStatus.UNPROCESSABLE_ENTITY;
          case MISSING -> HttpStatus.NOT_FOUND;
          case CONFLICT -> HttpStatus.CONFLICT;
          case DATABASE -> HttpStatus.BAD_GATEWAY;
          case STORAGE -> HttpStatus.INSUFFICIENT_STORAGE;
          case OURS -> HttpStatus.INTERNAL_SERVER_ERROR;
        };
    return detail(status, e.code(), e.getMessage());
  }

  @ExceptionHandler
  ProblemDetail invalid(MethodArgumentNotValidException e) {
    String message =
        "The request is not complete: "
            + String.join(
                "; ",
                e.getFieldErrors().stream()
                    .map(f -> f.getField() + " " + f.getDefaultMessage())
                    .sorted()
                    .toList())
            + ".";
    return detail(HttpStatus.UNPROCESSABLE_ENTITY, ErrorCode.INVALID, message);
  }

  @ExceptionHandler({
    HttpMessageNotReadableException.class,
    MethodArgumentTypeMismatchException.class
  })
  ProblemDetail unreadable(Exception e) {
    LOG.debug("unreadable request", e);
    return detail(
        HttpStatus.BAD_REQUEST, ErrorCode.UNREADABLE, "The request could not be understood.");
  }

  @ExceptionHandler({
    AsyncRequestNotUsableException.class,
    AsyncRequestTimeoutException.class,
    ClientAbortException.class
  })
  void gone(Exception e) {
    LOG.debug("the browser has left, or the server is about to", e);
  }

  @ExceptionHandler
  ProblemDetail other(Exception e) throws Exception {
    if (e instanceof AuthenticationException || e instanceof AccessDeniedException) {
      throw e;
    }
    if (e instanceof ErrorResponse response && response.getStatusCode().is4xxClientError()) {
      return detail(
          HttpStatus.valueOf(response.getStatusCode().value()),
          ErrorCode.REQUEST,
          "The server does not know this request.");
    }
    if (e.getCause() instanceof OutOfMemoryError error) {
      return tooMuch(error);
    }
    if (isFull(e)) {
      return detail(
          HttpStatus.INSUFFICIENT_STORAGE,
          ErrorCode.NO_ROOM,
          "The disk of the data folder is full, so that nothing can be kept. Make room on it, then"
              + " try again.");
    }
    LOG.error("unexpected error", e);
    return detail(
        HttpStatus.INTERNAL_SERVER_ERROR,
        ErrorCode.INTERNAL,
        "Something went wrong on the server. Nothing was written; the server's log says more.");
  }

  /** What asks for too much memory ends alone; the server goes on. */
  private static ProblemDetail tooMuch(OutOfMemoryError e) {
    LOG.error("not enough memory", e);
    return detail(
        HttpStatus.INSUFFICIENT_STORAGE,
        ErrorCode.TOO_MUCH,
        "The server has not enough memory for this. Nothing was written.");
  }

  /** A value that our own records have no room for, or that stands for none of them. */
  @ExceptionHandler
  ProblemDetail notKept(DataIntegrityViolationException e) {
    LOG.debug("not kept", e);
    return detail(
        HttpStatus.UNPROCESSABLE_ENTITY,
        ErrorCode.NOT_KEPT,
        "A value of the request is too long, missing or stands for nothing that there is. Nothing"
            + " was kept.");
  }

  private static boolean isFull(Throwable e) {
    for (Throwable cause = e; cause != null; cause = cause.getCause()) {
      String message = String.valueOf(cause.getMessage());
      if (message.contains("No space left on device") || message.contains("Disk quota exceeded")) {
        return true;
      }
    }
    return false;
  }

  /** A problem detail with its code and whose matter it is. */
  public static ProblemDetail detail(HttpStatus status, ErrorCode code, String message) {
    ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, message);
    detail.setProperty("code", code.word());
    detail.setProperty("kind", code.kind().name().toLowerCase(Locale.ROOT));
    return detail;
  }
}
