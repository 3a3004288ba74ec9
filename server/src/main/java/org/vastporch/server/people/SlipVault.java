package org.vastporch.server.people;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.Base64;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * Locks the pass phrases of slips that were not used yet, so that a teacher can print a slip again before the first
 * sign-in. The key lies beside the database, not in it: a stolen copy of the database alone opens none.
 */
@Component
class SlipVault {

    private static final int NONCE = 12;

    private final SecureRandom random = new SecureRandom();
    private final SecretKeySpec key;

    SlipVault(@Value("${vastporch.data:./data}") Path data) throws IOException {
        Path file = data.resolve("slips.key");
        if (!Files.exists(file)) {
            Files.createDirectories(data);
            byte[] fresh = new byte[32];
            random.nextBytes(fresh);
            Files.write(file, fresh);
        }
        key = new SecretKeySpec(Files.readAllBytes(file), "AES");
    }

    String lock(String phrase) {
        byte[] nonce = new byte[NONCE];
        random.nextBytes(nonce);
        byte[] locked = run(Cipher.ENCRYPT_MODE, nonce, phrase.getBytes(StandardCharsets.UTF_8));
        return Base64.getEncoder()
                .encodeToString(ByteBuffer.allocate(NONCE + locked.length)
                        .put(nonce)
                        .put(locked)
                        .array());
    }

    String open(String locked) {
        byte[] bytes = Base64.getDecoder().decode(locked);
        byte[] nonce = Arrays.copyOf(bytes, NONCE);
        return new String(
                run(Cipher.DECRYPT_MODE, nonce, Arrays.copyOfRange(bytes, NONCE, bytes.length)),
                StandardCharsets.UTF_8);
    }

    private byte[] run(int mode, byte[] nonce, byte[] input) {
        try {
            Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
            cipher.init(mode, key, new GCMParameterSpec(128, nonce));
            return cipher.doFinal(input);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("The key of the sign-in slips does not fit; was slips.key replaced?", e);
        }
    }
}
