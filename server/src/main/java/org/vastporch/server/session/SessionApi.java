package org.vastporch.server.session;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import java.util.List;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.people.PeopleService;

@RestController
class SessionApi {

    record SignIn(String username, String password) {}

    record NewTeacher(String title, String given, String family, String email) {}

    record NewHelper(Role role, String title, String given, String family, String email) {}

    record PasswordChange(String before, String password) {}

    record PasswordChanged(int signedOut) {}

    record FirstPassword(String token, String password) {}

    /** Tells a device on which somebody signed in before. */
    private static final String DEVICE = "porch_device";

    private final SessionService sessions;
    private final PassPhraseService phrases;
    private final PeopleService people;

    SessionApi(SessionService sessions, PassPhraseService phrases, PeopleService people) {
        this.sessions = sessions;
        this.phrases = phrases;
        this.people = people;
    }

    @PostMapping("/api/session")
    void signIn(@RequestBody SignIn body, HttpServletRequest request, HttpServletResponse response) {
        SessionService.SignedIn signedIn = sessions.signIn(
                body.username(), body.password(), request.getRemoteAddr(), SessionFilter.cookie(request, DEVICE));
        setCookie(request, response, signedIn.session(), SessionService.SESSION);
        setCookie(request, response, DEVICE, signedIn.device(), SessionService.DEVICE);
    }

    @DeleteMapping("/api/session")
    void signOut(HttpServletRequest request, HttpServletResponse response) {
        sessions.signOut(SessionFilter.tokenOf(request));
        setCookie(request, response, "", Duration.ZERO);
    }

    @PostMapping("/api/first-password")
    void firstPassword(@RequestBody FirstPassword body, HttpServletRequest request, HttpServletResponse response) {
        setCookie(request, response, sessions.firstPassword(body.token(), body.password()), SessionService.SESSION);
    }

    /** Changes the own password; answers how many other sessions ended with it. */
    @PutMapping("/api/account/password")
    PasswordChanged changePassword(Viewer viewer, @RequestBody PasswordChange body, HttpServletRequest request) {
        return new PasswordChanged(sessions.changePassword(
                viewer, body.before(), body.password(), SessionFilter.tokenOf(request), request.getRemoteAddr()));
    }

    /** Says that one knows of the tries at one's password. */
    @DeleteMapping("/api/account/tries")
    void triesSeen(Viewer viewer) {
        sessions.triesSeen(viewer);
    }

    /** Lets tries at an account be answered at once again. */
    @DeleteMapping("/api/school/people/{person}/tries")
    void liftTries(Viewer viewer, @PathVariable long person) {
        sessions.liftTries(viewer, person);
    }

    /** A new pass phrase for a member of a class. */
    @PostMapping("/api/classes/{id}/people/{person}/pass-phrase")
    PassPhraseService.NewPhrase newPhrase(Viewer viewer, @PathVariable long id, @PathVariable long person) {
        return phrases.renew(viewer, id, person);
    }

    /** A new one-time address for a teacher who forgot the password, made by the school keeper. */
    @PostMapping("/api/school/people/{person}/one-time")
    PassPhraseService.Welcome newAddress(Viewer viewer, @PathVariable long person) {
        return phrases.newAddress(viewer, person);
    }

    @GetMapping("/api/school/staff")
    List<PeopleService.StaffLine> staff(Viewer viewer) {
        return people.staffOfSchool(viewer);
    }

    /** A new teacher, made by the school keeper, with a one-time address to hand over. */
    @PostMapping("/api/school/staff")
    PassPhraseService.Welcome addTeacher(Viewer viewer, @RequestBody NewTeacher body) {
        return phrases.addTeacher(viewer, body.title(), new PersonName(body.family(), body.given()), body.email());
    }

    @PostMapping("/api/classes/{id}/helpers")
    PassPhraseService.Welcome addHelper(Viewer viewer, @PathVariable long id, @RequestBody NewHelper body) {
        return phrases.addHelper(
                viewer, id, body.role(), body.title(), new PersonName(body.family(), body.given()), body.email());
    }

    static void setCookie(HttpServletRequest request, HttpServletResponse response, String value, Duration age) {
        setCookie(request, response, SessionFilter.COOKIE, value, age);
    }

    private static void setCookie(
            HttpServletRequest request, HttpServletResponse response, String name, String value, Duration age) {
        response.addHeader(
                HttpHeaders.SET_COOKIE,
                ResponseCookie.from(name, value)
                        .httpOnly(true)
                        .secure(request.isSecure())
                        .sameSite("Lax")
                        .path("/")
                        .maxAge(age)
                        .build()
                        .toString());
    }
}
