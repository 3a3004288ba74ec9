package org.vastporch.server.http;

import java.util.UUID;
import org.apache.tomcat.util.http.InvalidParameterException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.CannotAcquireLockException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import org.vastporch.core.Refusal;

/** Turns everything that goes wrong into one form of answer. */
@RestControllerAdvice
class ProblemAdvice {

    private static final Logger log = LoggerFactory.getLogger(ProblemAdvice.class);

    /** Whoever asked has left while the answer was on its way: nobody is there to be told, and nothing is wrong. */
    @ExceptionHandler(AsyncRequestNotUsableException.class)
    void onAskerGone() {}

    @ExceptionHandler
    ResponseEntity<ProblemDetail> on(Problem e) {
        ProblemDetail detail = detail(e.status(), e.code(), e.getMessage());
        e.facts().forEach(detail::setProperty);
        ResponseEntity.BodyBuilder answer = ResponseEntity.status(e.status());
        if (e.retryAfter() != null)
            answer.header(HttpHeaders.RETRY_AFTER, String.valueOf(e.retryAfter().toSeconds()));
        return answer.body(detail);
    }

    /** The core says what is wrong with what was sent. */
    @ExceptionHandler
    ProblemDetail on(Refusal e) {
        ProblemDetail detail = detail(HttpStatus.UNPROCESSABLE_CONTENT, e.code(), e.getMessage());
        if (!e.field().isEmpty()) detail.setProperty("field", e.field());
        return detail;
    }

    @ExceptionHandler
    ProblemDetail on(HttpMessageNotReadableException e) {
        for (Throwable cause = e.getCause(); cause != null; cause = cause.getCause()) {
            if (cause instanceof Refusal refusal) return on(refusal);
            if (cause instanceof ShortBodies.TooLong)
                return detail(
                        HttpStatus.CONTENT_TOO_LARGE,
                        "too-long",
                        "This is too long to be kept in one piece. Please make two of it.");
        }
        return detail(HttpStatus.BAD_REQUEST, "not-readable", "This request could not be read.");
    }

    /** A word where a number belongs. */
    @ExceptionHandler
    ProblemDetail on(MethodArgumentTypeMismatchException e) {
        ProblemDetail detail = detail(HttpStatus.BAD_REQUEST, "not-valid", "This request could not be understood.");
        detail.setProperty("field", e.getName());
        return detail;
    }

    /** A query that is no text. */
    @ExceptionHandler
    ProblemDetail on(InvalidParameterException e) {
        return detail(HttpStatus.BAD_REQUEST, "not-valid", "This request could not be understood.");
    }

    @ExceptionHandler
    ProblemDetail on(MaxUploadSizeExceededException e) {
        return detail(
                HttpStatus.CONTENT_TOO_LARGE,
                "too-large",
                "This file is larger than 40 MB. Please choose a smaller one.");
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> on(NoResourceFoundException e) {
        return on(Problem.missing());
    }

    @ExceptionHandler
    ProblemDetail on(CannotAcquireLockException e) {
        return detail(HttpStatus.CONFLICT, "busy", "Somebody else is changing this right now. Please try again.");
    }

    @ExceptionHandler
    ProblemDetail on(Exception e) {
        if (e instanceof ErrorResponse known)
            return detail(
                    HttpStatus.valueOf(known.getStatusCode().value()),
                    "not-valid",
                    "This request could not be understood.");
        // The number stands in the answer and in the log, so that whoever keeps the school finds the one by the other.
        String id = UUID.randomUUID().toString().substring(0, 8);
        log.error("Unexpected failure {}", id, e);
        ProblemDetail detail = detail(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "unexpected",
                "Something went wrong on our side (" + id + "). What you typed is still here; please try again.");
        detail.setProperty("id", id);
        return detail;
    }

    private static ProblemDetail detail(HttpStatus status, String code, String sentence) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, sentence);
        detail.setProperty("code", code);
        return detail;
    }
}
