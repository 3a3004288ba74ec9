package org.vastporch.server.people;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class AccountApi {

    record PasswordChange(String before, String password) {}

    private final AccountService accounts;

    AccountApi(AccountService accounts) {
        this.accounts = accounts;
    }

    @GetMapping("/api/account")
    AccountService.Account account(Viewer viewer) {
        return accounts.of(viewer);
    }

    @PutMapping("/api/account/password")
    void changePassword(Viewer viewer, @RequestBody PasswordChange body) {
        accounts.changePassword(viewer, body.before(), body.password());
    }

    /** The people of the school whose given name, family name or username begins so. */
    @GetMapping("/api/school/people")
    AccountService.PersonPage find(Viewer viewer, @RequestParam(defaultValue = "") String begins, @RequestParam(defaultValue = "") String after) {
        return accounts.find(viewer, begins, after);
    }
}
