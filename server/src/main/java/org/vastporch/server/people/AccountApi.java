package org.vastporch.server.people;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.mail.SchoolAddress;

@RestController
class AccountApi {

    record EmailChange(String email) {}

    record Confirmation(String token) {}

    /** @param sure whether it was configured or confirmed; {@code fixed} whether it is configured and changed there */
    record AddressView(String address, boolean sure, boolean fixed) {}

    record AddressWish(String address) {}

    private final AccountService accounts;
    private final EmailService emails;
    private final PeopleService people;
    private final SchoolAddress school;

    AccountApi(AccountService accounts, EmailService emails, PeopleService people, SchoolAddress school) {
        this.accounts = accounts;
        this.emails = emails;
        this.people = people;
        this.school = school;
    }

    @GetMapping("/api/account")
    AccountService.Account account(Viewer viewer) {
        return accounts.of(viewer);
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

    /** By which address people reach the school, for its keeper. */
    @GetMapping("/api/school/address")
    AddressView address(Viewer viewer) {
        people.requireKeeper(viewer);
        return new AddressView(school.base(), school.isSure(), school.isConfigured());
    }

    @PutMapping("/api/school/address")
    AddressView confirmAddress(Viewer viewer, @RequestBody AddressWish body) {
        people.requireKeeper(viewer);
        school.confirm(body.address());
        return address(viewer);
    }

    /** The people of the school whose given name, family name or username begins so. */
    @GetMapping("/api/school/people")
    AccountService.PersonPage find(
            Viewer viewer,
            @RequestParam(defaultValue = "") String begins,
            @RequestParam(defaultValue = "") String after) {
        return accounts.find(viewer, begins, after);
    }
}
