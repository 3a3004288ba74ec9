package org.vastporch.server.feeds;

import java.io.IOException;
import java.io.InputStream;
import java.io.InterruptedIOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.SystemDefaultDnsResolver;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.util.Timeout;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.vastporch.core.feeds.AddressGuard;
import org.vastporch.core.feeds.WebLink;

/**
 * Fetches from outside without letting outside in: only http and https, never a private address (checked on the address
 * that is really connected to, anew for every redirect), with limits on size, time and redirects. Whatever goes wrong
 * is a {@link FetchException} with a sentence.
 */
@Component
class SafeFetcher {

    private static final int MOST_REDIRECTS = 5;
    private static final Timeout PATIENCE = Timeout.ofSeconds(6);

    /** What came. {@code permanent} is the new address if every redirect on the way said "for good". */
    record Fetched(
            int status,
            String address,
            byte[] body,
            String contentType,
            @Nullable String etag,
            @Nullable String lastModified,
            @Nullable String cacheControl,
            @Nullable String retryAfter,
            @Nullable String permanent) {}

    /** Why nothing came, in words for people. */
    static final class FetchException extends Exception {
        final String code;

        FetchException(String code, String sentence) {
            super(sentence);
            this.code = code;
        }
    }

    private final List<String> allowedPrivate;
    private final CloseableHttpClient strict = client(new PublicOnly());
    private final CloseableHttpClient trusting = client(SystemDefaultDnsResolver.INSTANCE);
    private final ScheduledExecutorService watch = Executors.newSingleThreadScheduledExecutor(task -> {
        Thread thread = new Thread(task, "fetch-watch");
        thread.setDaemon(true);
        return thread;
    });

    SafeFetcher(@Value("${vastporch.feeds.allowed-private-hosts:}") String allowedPrivate) {
        this.allowedPrivate = Arrays.stream(allowedPrivate.split("[,\\s]+"))
                .filter(h -> !h.isBlank())
                .toList();
    }

    /** Gets an address, following redirects. Pass what a former answer said, to be told 304 if nothing changed. */
    Fetched get(String address, @Nullable String etag, @Nullable String lastModified, Budget budget)
            throws FetchException {
        URI at = place(address, "not-an-address", "This is no address that can be asked.");
        boolean forGood = true;
        for (int hop = 0; hop <= MOST_REDIRECTS; hop++) {
            Fetched answer = once(at, etag, lastModified, budget);
            if (answer.status() < 300 || answer.status() > 308 || answer.status() == 304 || answer.permanent() == null)
                return new Fetched(
                        answer.status(),
                        at.toString(),
                        answer.body(),
                        answer.contentType(),
                        answer.etag(),
                        answer.lastModified(),
                        answer.cacheControl(),
                        answer.retryAfter(),
                        hop > 0 && forGood ? at.toString() : null);
            forGood &= answer.status() == 301 || answer.status() == 308;
            at = next(at, answer.permanent());
        }
        throw new FetchException("redirects", "This address sends one on and on and never arrives.");
    }

    private URI next(URI from, String location) throws FetchException {
        String sentence = "This address sends one on to a place that cannot be reached.";
        try {
            String to = location.strip();
            boolean whole = to.matches("(?i)[a-z][a-z0-9+.-]*:.*");
            return place(whole ? to : from.resolve(encoded(to)).toString(), "redirects", sentence);
        } catch (IllegalArgumentException e) {
            throw new FetchException("redirects", sentence);
        }
    }

    /** Servers send on to places with blanks and letters in them. */
    private static String encoded(String path) {
        String whole = WebLink.of("http://x" + (path.startsWith("/") ? "" : "/") + path);
        return path.startsWith("//") || whole.isEmpty()
                ? path
                : whole.substring("http://x".length() + (path.startsWith("/") ? 0 : 1));
    }

    /** A place that may be asked, as far as its address says; the rest is decided on what is connected to. */
    private URI place(String address, String code, String sentence) throws FetchException {
        String link = WebLink.of(address);
        if (link.isEmpty()) throw new FetchException(code, sentence);
        URI at = URI.create(link);
        if (at.getHost() == null || !AddressGuard.isPlain(at.getHost())) throw new FetchException(code, sentence);
        if (!isTrusted(at) && !AddressGuard.isOpen(portOf(at)))
            throw new FetchException("port", "Pages do not stand at port " + portOf(at) + ", so it is not asked.");
        return at;
    }

    private boolean isTrusted(URI at) {
        return allowedPrivate.contains(at.getHost() + ":" + portOf(at));
    }

    private static int portOf(URI at) {
        return at.getPort() > 0 ? at.getPort() : at.getScheme().equals("https") ? 443 : 80;
    }

    private Fetched once(URI at, @Nullable String etag, @Nullable String lastModified, Budget budget)
            throws FetchException {
        Duration longest = budget.take();
        HttpGet get = new HttpGet(at);
        get.setHeader("User-Agent", "VastPorch/1 (feed reader of a school)");
        get.setHeader(
                "Accept",
                "application/atom+xml, application/rss+xml, application/xml;q=0.9, text/html;q=0.8, */*;q=0.5");
        get.setHeader("Accept-Encoding", "gzip");
        if (etag != null) get.setHeader("If-None-Match", etag);
        if (lastModified != null) get.setHeader("If-Modified-Since", lastModified);
        ScheduledFuture<?> alarm = watch.schedule(get::abort, longest.toMillis(), TimeUnit.MILLISECONDS);
        CloseableHttpClient client = isTrusted(at) ? trusting : strict;
        try {
            return client.execute(get, response -> read(at, response, budget));
        } catch (SentBody.Refused e) {
            throw e.asFetch();
        } catch (PrivateAddressException e) {
            throw new FetchException(
                    "private-address", "This address leads into a private network and is not fetched.");
        } catch (UnknownHostException e) {
            throw new FetchException("not-found", "There is no server of the name " + at.getHost() + ".");
        } catch (IOException e) {
            boolean late = get.isAborted() || e instanceof InterruptedIOException;
            throw new FetchException(
                    late ? "too-slow" : "no-answer",
                    late
                            ? "The server " + at.getHost() + " took too long to answer."
                            : "The server " + at.getHost() + " does not answer.");
        } catch (RuntimeException e) {
            // Clients meet odd addresses and answers with exceptions of all kinds.
            throw new FetchException("no-answer", "The server " + at.getHost() + " gives no answer that can be read.");
        } finally {
            alarm.cancel(false);
        }
    }

    private static Fetched read(URI at, ClassicHttpResponse response, Budget budget) throws IOException {
        int status = response.getCode();
        byte[] body = new byte[0];
        if (status == 200 && response.getEntity() != null) {
            try (InputStream in = response.getEntity().getContent()) {
                body = SentBody.read(in, header(response, "Content-Encoding").orElse(""), budget);
            }
        }
        return new Fetched(
                status,
                at.toString(),
                body,
                header(response, "Content-Type").orElse(""),
                header(response, "ETag").orElse(null),
                header(response, "Last-Modified").orElse(null),
                header(response, "Cache-Control").orElse(null),
                header(response, "Retry-After").orElse(null),
                header(response, "Location").orElse(null));
    }

    private static Optional<String> header(ClassicHttpResponse response, String name) {
        return Optional.ofNullable(response.getFirstHeader(name)).map(Header::getValue);
    }

    private static CloseableHttpClient client(DnsResolver resolver) {
        return HttpClients.custom()
                .disableRedirectHandling()
                .disableCookieManagement()
                .disableAuthCaching()
                .disableAutomaticRetries()
                // Unpacked here, with a limit.
                .disableContentCompression()
                .setDefaultRequestConfig(RequestConfig.custom()
                        .setResponseTimeout(PATIENCE)
                        .setConnectionRequestTimeout(PATIENCE)
                        .build())
                .setConnectionManager(PoolingHttpClientConnectionManagerBuilder.create()
                        .setDnsResolver(resolver)
                        .setMaxConnPerRoute(2)
                        .setMaxConnTotal(12)
                        .setDefaultConnectionConfig(ConnectionConfig.custom()
                                .setConnectTimeout(PATIENCE)
                                .setSocketTimeout(PATIENCE)
                                .build())
                        .build())
                .build();
    }

    static final class PrivateAddressException extends UnknownHostException {}

    /** Gives only public addresses: the connection is made to just what was checked here. */
    private static final class PublicOnly implements DnsResolver {
        @Override
        public InetAddress[] resolve(String host) throws UnknownHostException {
            InetAddress[] all = InetAddress.getAllByName(host);
            for (InetAddress address : all)
                if (!AddressGuard.isPublic(address.getAddress())) throw new PrivateAddressException();
            return all;
        }

        @Override
        public String resolveCanonicalHostname(String host) {
            return host;
        }
    }
}
