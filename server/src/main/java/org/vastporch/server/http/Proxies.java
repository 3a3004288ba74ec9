package org.vastporch.server.http;

import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.apache.catalina.valves.RemoteIpValve;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/**
 * Where a request comes from, if web servers stand before this one. Only what a web server that is named in the
 * settings says counts, and of a chain of addresses the last one that is no such server: whatever its sender wrote
 * before that is the sender's own invention.
 */
@Component
class Proxies implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

    private final List<String> trusted;

    Proxies(
            @Value("${vastporch.proxies:}") List<String> trusted,
            @Value("${server.forward-headers-strategy:none}") String strategy) {
        if (!strategy.equalsIgnoreCase("none"))
            throw new IllegalStateException(
                    "server.forward-headers-strategy believes whoever sends; name the web server "
                            + "before this one in VASTPORCH_PROXIES instead");
        this.trusted =
                trusted.stream().map(String::strip).filter(t -> !t.isEmpty()).toList();
    }

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        if (trusted.isEmpty()) return;
        RemoteIpValve valve = new RemoteIpValve();
        valve.setInternalProxies(trusted.stream().map(Pattern::quote).collect(Collectors.joining("|")));
        valve.setTrustedProxies(null);
        valve.setRemoteIpHeader("X-Forwarded-For");
        valve.setProtocolHeader("X-Forwarded-Proto");
        factory.addEngineValves(valve);
    }
}
