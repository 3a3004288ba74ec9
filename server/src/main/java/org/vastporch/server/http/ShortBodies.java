package org.vastporch.server.http;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * A body that carries no files is read up to a length that the longest list of students needs, and no further, whatever
 * it says of its length.
 */
@Component
class ShortBodies extends OncePerRequestFilter {

    /** In bytes: a million characters of three or four bytes each, and what stands around them. */
    static final int LONGEST = 4_000_000;

    static final class TooLong extends IOException {}

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        String type = request.getContentType();
        return type != null && type.toLowerCase().startsWith("multipart/");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        chain.doFilter(
                new HttpServletRequestWrapper(request) {
                    @Override
                    public ServletInputStream getInputStream() throws IOException {
                        if (getContentLengthLong() > LONGEST) throw new TooLong();
                        return new Counted(super.getInputStream());
                    }
                },
                response);
    }

    private static final class Counted extends ServletInputStream {
        private final ServletInputStream body;
        private int read;

        private Counted(ServletInputStream body) {
            this.body = body;
        }

        private int counted(int more) throws TooLong {
            read += Math.max(0, more);
            if (read > LONGEST) throw new TooLong();
            return more;
        }

        @Override
        public int read() throws IOException {
            int next = body.read();
            counted(next < 0 ? 0 : 1);
            return next;
        }

        @Override
        public int read(byte[] into, int from, int most) throws IOException {
            return counted(body.read(into, from, most));
        }

        @Override
        public boolean isFinished() {
            return body.isFinished();
        }

        @Override
        public boolean isReady() {
            return body.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            body.setReadListener(listener);
        }
    }
}
