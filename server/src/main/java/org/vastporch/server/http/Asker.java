package org.vastporch.server.http;

import jakarta.servlet.ServletException;
import java.io.IOException;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/**
 * Whoever sent the request that is being answered, and waits for the answer or has left: dear work that stood in line
 * asks before it begins. For requests that bring a body.
 */
@Component
public class Asker implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

    /** The connector's own request, which alone can look at the line without waiting. */
    private static final String LINE = Asker.class.getName();

    private static final int MOST_AFTER_THE_PARTS = 8192;

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        factory.addContextValves(new ValveBase(true) {
            @Override
            public void invoke(Request request, Response response) throws IOException, ServletException {
                request.setAttribute(LINE, request.getCoyoteRequest());
                getNext().invoke(request, response);
            }
        });
    }

    /**
     * Reads what comes after the last part of an upload, which the reader of parts leaves lying: while it lies there,
     * nobody can see whether the line goes on behind it. Not to be called with anything in hand that others wait for,
     * since the sender may be slow.
     */
    public static void hearOut() {
        if (!(RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes attributes)) return;
        try {
            attributes.getRequest().getInputStream().readNBytes(MOST_AFTER_THE_PARTS);
        } catch (IOException e) {
            // All that was asked for has come. Whether its sender is still there is said by isGone.
        }
    }

    /**
     * Whether the line that the request came by has been closed from the other side. Says no where that cannot be
     * known: outside a request, and while bytes of it lie unread.
     */
    public boolean isGone() {
        RequestAttributes attributes = RequestContextHolder.getRequestAttributes();
        return attributes != null
                && attributes.getAttribute(LINE, RequestAttributes.SCOPE_REQUEST)
                        instanceof org.apache.coyote.Request line
                && hasEnded(line);
    }

    /**
     * The connector says of an ended line that there is something to read, as it does when bytes have come (a next
     * request, say); but bytes are there afterwards too.
     */
    private static boolean hasEnded(org.apache.coyote.Request line) {
        boolean unread = isThereMore(line, false);
        return !unread && isThereMore(line, true) && !isThereMore(line, false);
    }

    private static boolean isThereMore(org.apache.coyote.Request line, boolean lookAtTheLine) {
        line.action(ActionCode.AVAILABLE, lookAtTheLine);
        return line.getAvailable() > 0;
    }
}
