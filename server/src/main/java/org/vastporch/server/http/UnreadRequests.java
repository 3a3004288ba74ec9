package org.vastporch.server.http;

import java.io.IOException;
import java.io.PrintWriter;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.core.StandardHost;
import org.apache.catalina.valves.ErrorReportValve;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/**
 * What the web server refuses before anybody of ours sees it (an address that cannot be one) is said in our form too.
 */
@Component
class UnreadRequests implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        factory.addContextCustomizers(
                context -> ((StandardHost) context.getParent()).setErrorReportValveClass(Said.class.getName()));
    }

    /** Made by the web server, by its name. */
    public static final class Said extends ErrorReportValve {

        @Override
        protected void report(Request request, Response response, Throwable throwable) {
            int status = response.getStatus();
            if (status < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) return;
            try {
                response.setContentType("application/problem+json");
                response.setCharacterEncoding("utf-8");
                PrintWriter writer = response.getReporter();
                if (writer == null) return;
                writer.write("{\"status\":" + status + ",\"code\":\"" + code(status) + "\",\"detail\":\""
                        + sentence(status) + "\"}");
                response.finishResponse();
            } catch (IOException | IllegalStateException e) {
                // Whoever asked is gone.
            }
        }

        private static String code(int status) {
            return status < 500 ? "not-valid" : "failed";
        }

        private static String sentence(int status) {
            if (status >= 500) return "Something went wrong here. Please try again.";
            if (status == 413 || status == 414 || status == 431) return "This request is too long.";
            return "This request could not be understood.";
        }
    }
}
