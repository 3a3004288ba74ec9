package org.vastporch.server.feeds;

import java.io.ByteArrayOutputStream;
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

/**
 * Fetches from outside without letting outside in: only http and https, never a private address (checked on the address
 * that is really connected to, anew for every redirect), with limits on size, time and redirects.
 */
@Component
class SafeFetcher {

    static final int MOST_BYTES = 5 * 1024 * 1024;
    private static final int MOST_REDIRECTS = 5;
    private static final Duration LONGEST = Duration.ofSeconds(15);
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
    Fetched get(String address, @Nullable String etag, @Nullable String lastModified) throws FetchException {
        URI at = URI.create(address);
        boolean forGood = true;
        for (int hop = 0; hop <= MOST_REDIRECTS; hop++) {
            Fetched answer = once(at, etag, lastModified);
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

    private static URI next(URI from, String location) throws FetchException {
        try {
            URI to = from.resolve(location.strip());
            if (!"http".equals(to.getScheme()) && !"https".equals(to.getScheme()) || to.getHost() == null)
                throw new IllegalArgumentException(location);
            return to;
        } catch (IllegalArgumentException e) {
            throw new FetchException("redirects", "This address sends one on to a place that cannot be reached.");
        }
    }

    private Fetched once(URI at, @Nullable String etag, @Nullable String lastModified) throws FetchException {
        HttpGet get = new HttpGet(at);
        get.setHeader("User-Agent", "VastPorch/1 (feed reader of a school)");
        get.setHeader(
                "Accept",
                "application/atom+xml, application/rss+xml, application/xml;q=0.9, text/html;q=0.8, */*;q=0.5");
        if (etag != null) get.setHeader("If-None-Match", etag);
        if (lastModified != null) get.setHeader("If-Modified-Since", lastModified);
        ScheduledFuture<?> alarm = watch.schedule(get::abort, LONGEST.toMillis(), TimeUnit.MILLISECONDS);
        int port = at.getPort() > 0 ? at.getPort() : at.getScheme().equals("https") ? 443 : 80;
        CloseableHttpClient client = allowedPrivate.contains(at.getHost() + ":" + port) ? trusting : strict;
        try {
            return client.execute(get, response -> read(at, response));
        } catch (TooLargeException e) {
            throw new FetchException("too-large", "What stands at this address is larger than 5 MB and was not read.");
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
        } finally {
            alarm.cancel(false);
        }
    }

    private static Fetched read(URI at, ClassicHttpResponse response) throws IOException {
        int status = response.getCode();
        byte[] body = new byte[0];
        if (status == 200 && response.getEntity() != null) {
            // The size is counted after unpacking, so that a small packed answer cannot grow without limit.
            try (InputStream in = response.getEntity().getContent()) {
                body = limited(in);
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

    private static byte[] limited(InputStream in) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        byte[] buffer = new byte[16_384];
        for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
            out.write(buffer, 0, n);
            if (out.size() > MOST_BYTES) throw new TooLargeException();
        }
        return out.toByteArray();
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

    private static final class TooLargeException extends IOException {}

    static final class PrivateAddressException extends UnknownHostException {}

    /** Gives only public addresses: the connection is made to just what was checked here. */
    private static final class PublicOnly implements DnsResolver {
        @Override
        public InetAddress[] resolve(String host) throws UnknownHostException {
            InetAddress[] all = InetAddress.getAllByName(host);
            for (InetAddress address : all) if (isPrivate(address)) throw new PrivateAddressException();
            return all;
        }

        @Override
        public String resolveCanonicalHostname(String host) {
            return host;
        }
    }

    /** Tells whether an address lies in a network that is not the open internet. */
    static boolean isPrivate(InetAddress address) {
        byte[] b = address.getAddress();
        if (address.isAnyLocalAddress()
                || address.isLoopbackAddress()
                || address.isLinkLocalAddress()
                || address.isSiteLocalAddress()
                || address.isMulticastAddress()) return true;
        int first = b[0] & 0xff;
        int second = b[1] & 0xff;
        if (b.length == 4)
            return first == 0
                    || first >= 240
                    || first == 100 && second >= 64 && second < 128
                    || first == 192 && second == 0 && b[2] == 0
                    || first == 198 && (second == 18 || second == 19);
        boolean uniqueLocal = (first & 0xfe) == 0xfc;
        boolean carriesOld = first == 0x20 && second == 0x02
                || first == 0 && second == 0x64
                || first == 0x20 && second == 0x01 && b[2] == 0 && b[3] == 0;
        boolean allZeroButEnd = true;
        for (int i = 0; i < 10; i++) allZeroButEnd &= b[i] == 0;
        return uniqueLocal || carriesOld || allZeroButEnd;
    }
}
