package org.vastporch.server.mail;

import java.time.Instant;

/** Whoever writes mails that carry what people wrote is asked again at the moment of sending. */
public interface MailCheck {

    /** @param carries posts and comments as " p7 c9 " */
    boolean mayGo(long personId, String carries);

    /** A mail was not sent; what happened since {@code since} is to be told anew. */
    void withdrawn(long personId, String cadence, Instant since);
}
