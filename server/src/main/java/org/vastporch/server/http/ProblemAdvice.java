package org.vastporch.server.http;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.CannotAcquireLockException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import org.vastporch.core.people.RosterReader.UnreadableRosterException;

/** Turns everything that goes wrong into one form of answer. */
@RestControllerAdvice
class ProblemAdvice {

    private static final Logger log = LoggerFactory.getLogger(ProblemAdvice.class);

    @ExceptionHandler
    ProblemDetail on(Problem e) {
        ProblemDetail detail = detail(e.status(), e.code(), e.getMessage());
        e.facts().forEach(detail::setProperty);
        return detail;
    }

    @ExceptionHandler
    ProblemDetail on(UnreadableRosterException e) {
        ProblemDetail detail = detail(HttpStatus.UNPROCESSABLE_CONTENT, e.code(), e.getMessage());
        detail.setProperty("field", "roster");
        return detail;
    }

    /** The values of the core say what is wrong with what they were given. */
    @ExceptionHandler
    ProblemDetail on(IllegalArgumentException e) {
        return detail(HttpStatus.UNPROCESSABLE_CONTENT, "not-valid", e.getMessage());
    }

    @ExceptionHandler
    ProblemDetail on(HttpMessageNotReadableException e) {
        for (Throwable cause = e.getCause(); cause != null; cause = cause.getCause())
            if (cause.getClass() == IllegalArgumentException.class) return on((IllegalArgumentException) cause);
        return detail(HttpStatus.BAD_REQUEST, "not-readable", "This request could not be read.");
    }

    @ExceptionHandler
    ProblemDetail on(MaxUploadSizeExceededException e) {
        return detail(HttpStatus.CONTENT_TOO_LARGE, "too-large", "This file is larger than 40 MB. Please choose a smaller one.");
    }

    @ExceptionHandler
    ProblemDetail on(NoResourceFoundException e) {
        return on(Problem.missing());
    }

    @ExceptionHandler
    ProblemDetail on(CannotAcquireLockException e) {
        return detail(HttpStatus.CONFLICT, "busy", "Somebody else is changing this right now. Please try again.");
    }

    @ExceptionHandler
    ProblemDetail on(Exception e) {
        if (e instanceof org.springframework.web.ErrorResponse known) {
            ProblemDetail detail = detail(HttpStatus.valueOf(known.getStatusCode().value()), "not-valid", "This request could not be understood.");
            return detail;
        }
        log.error("Unexpected failure", e);
        return detail(HttpStatus.INTERNAL_SERVER_ERROR, "unexpected", "Something went wrong on our side. What you typed is still here; please try again.");
    }

    private static ProblemDetail detail(HttpStatus status, String code, String sentence) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, sentence);
        detail.setProperty("code", code);
        return detail;
    }
}
