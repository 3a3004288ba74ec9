package org.vastporch.server.session;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.enrolment.InvitationService;
import org.vastporch.server.enrolment.JoinService;
import org.vastporch.server.http.Problem;

/** The ways in for those who have no account yet: a class word, an invitation. Guessing is slowed down by address. */
@RestController
class JoinApi {

    record WordTyped(String word) {}

    record ClassOfWord(String className) {}

    record ByWord(String word, JoinService.Newcomer newcomer) {}

    record Token(String token) {}

    record ByInvitation(String token, JoinService.Newcomer newcomer) {}

    /** @param username the final username, to be kept */
    record Joined(long classId, String username) {}

    private final JoinService joining;
    private final InvitationService invitations;
    private final SessionService sessions;
    private final Tries tries;

    JoinApi(JoinService joining, InvitationService invitations, SessionService sessions, Tries tries) {
        this.joining = joining;
        this.invitations = invitations;
        this.sessions = sessions;
        this.tries = tries;
    }

    @PostMapping("/api/join/class")
    ClassOfWord look(@RequestBody WordTyped body, HttpServletRequest request) {
        return guarded(request, () -> new ClassOfWord(joining.className(body.word())));
    }

    @PostMapping("/api/join")
    Joined join(Viewer viewer, @RequestBody ByWord body, HttpServletRequest request, HttpServletResponse response) {
        return guarded(
                request,
                () -> entered(
                        viewer, joining.byWord(inPerson(viewer), body.word(), body.newcomer()), request, response));
    }

    @PostMapping("/api/invitation")
    InvitationService.Invited read(@RequestBody Token body, HttpServletRequest request) {
        return guarded(request, () -> invitations.read(body.token()));
    }

    @PostMapping("/api/invitation/accept")
    Joined accept(
            Viewer viewer, @RequestBody ByInvitation body, HttpServletRequest request, HttpServletResponse response) {
        return guarded(
                request,
                () -> entered(
                        viewer,
                        joining.byInvitation(inPerson(viewer), body.token(), body.newcomer()),
                        request,
                        response));
    }

    private static Viewer inPerson(Viewer viewer) {
        if (!viewer.isInPerson()) throw Problem.missing();
        return viewer;
    }

    private Joined entered(
            Viewer viewer, JoinService.Joined joined, HttpServletRequest request, HttpServletResponse response) {
        if (viewer.isStranger())
            SessionApi.setCookie(request, response, sessions.open(joined.personId()), SessionService.SESSION);
        return new Joined(joined.classId(), joined.username());
    }

    private interface Way<T> {
        T go();
    }

    private <T> T guarded(HttpServletRequest request, Way<T> way) {
        String address = request.getRemoteAddr();
        tries.beforeCode(address);
        try {
            return way.go();
        } catch (Problem e) {
            if (e.code().equals("word-unknown") || e.code().equals("invitation-gone")) tries.wrongCode(address);
            throw e;
        }
    }
}
