package org.vastporch.demo;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Random;

/** Makes small sounds, so that the demo has recordings of its own: tones, noise and a beat. */
final class Sounds {

    private static final int RATE = 8_000;
    private static final int SECONDS = 4;
    private static final int HEAD = 44;

    private Sounds() {}

    /** A walk as WAV, four seconds long; the same seed gives the same one. */
    static byte[] walk(int seed) {
        Random random = new Random(seed);
        double hum = 80 + random.nextInt(140);
        double bird = 1_400 + random.nextInt(1_200);
        int step = RATE / 2 + random.nextInt(RATE / 3);
        double wind = 0;
        int samples = RATE * SECONDS;
        ByteBuffer wav = ByteBuffer.allocate(HEAD + 2 * samples).order(ByteOrder.LITTLE_ENDIAN);
        head(wav, samples);
        for (int i = 0; i < samples; i++) {
            double t = i / (double) RATE;
            wind = 0.97 * wind + 0.03 * (random.nextDouble() - 0.5);
            double beat = Math.exp(-(i % step) / 260.0) * (random.nextDouble() - 0.5);
            double call =
                    i / (RATE / 3) % 4 == seed % 4 ? Math.sin(2 * Math.PI * (bird + 300 * Math.sin(30 * t)) * t) : 0;
            double all = 0.10 * Math.sin(2 * Math.PI * hum * t) + 2.2 * wind + 0.35 * beat + 0.06 * call;
            double fade = Math.min(1, Math.min(t, SECONDS - t) * 4);
            wav.putShort((short) (Math.max(-1, Math.min(1, all * fade)) * 28_000));
        }
        return wav.array();
    }

    private static void head(ByteBuffer wav, int samples) {
        wav.put("RIFF".getBytes(StandardCharsets.US_ASCII)).putInt(HEAD - 8 + 2 * samples);
        wav.put("WAVEfmt ".getBytes(StandardCharsets.US_ASCII)).putInt(16);
        wav.putShort((short) 1).putShort((short) 1).putInt(RATE).putInt(2 * RATE);
        wav.putShort((short) 2).putShort((short) 16);
        wav.put("data".getBytes(StandardCharsets.US_ASCII)).putInt(2 * samples);
    }
}
