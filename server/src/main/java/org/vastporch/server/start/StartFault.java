package org.vastporch.server.start;

/** Something for which the server cannot start and that whoever starts it can mend: the sentence says what and how. */
public final class StartFault extends RuntimeException {

    public StartFault(String sentence) {
        super(sentence);
    }

    /**
     * Does what starts a program. A fault of this kind is told in its sentence and ends it; any other one shows itself
     * whole.
     */
    public static void told(Runnable start) {
        try {
            start.run();
        } catch (RuntimeException e) {
            for (Throwable cause = e; cause != null; cause = cause.getCause())
                if (cause instanceof StartFault) {
                    System.err.println("porch: " + cause.getMessage());
                    System.exit(1);
                }
            throw e;
        }
    }
}
