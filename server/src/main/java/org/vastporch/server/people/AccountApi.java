package org.vastporch.server.people;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class AccountApi {

    record PasswordChange(String before, String password) {}

    record EmailChange(String email) {}

    record Confirmation(String token) {}

    private final AccountService accounts;
    private final EmailService emails;

    AccountApi(AccountService accounts, EmailService emails) {
        this.accounts = accounts;
        this.emails = emails;
    }

    @GetMapping("/api/account")
    AccountService.Account account(Viewer viewer) {
        return accounts.of(viewer);
    }

    @PutMapping("/api/account/password")
    void changePassword(Viewer viewer, @RequestBody PasswordChange body) {
        accounts.changePassword(viewer, body.before(), body.password());
    }

    @PutMapping("/api/account/email")
    AccountService.Account changeEmail(Viewer viewer, @RequestBody EmailChange body) {
        emails.ask(viewer, body.email());
        return accounts.of(viewer);
    }

    /** Confirms an address; the token of the mail is enough. */
    @PostMapping("/api/email-confirmation")
    void confirmEmail(@RequestBody Confirmation body) {
        emails.confirm(body.token());
    }

    /** The people of the school whose given name, family name or username begins so. */
    @GetMapping("/api/school/people")
    AccountService.PersonPage find(Viewer viewer, @RequestParam(defaultValue = "") String begins, @RequestParam(defaultValue = "") String after) {
        return accounts.find(viewer, begins, after);
    }
}
