package org.vastporch.server;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Primary;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/** Hashes of passwords are slow on purpose, and each test makes and asks a dozen: here they are quick. */
@Configuration
class QuickHashes {

    private static final int QUICKEST = 4;

    @Bean
    @Primary
    PasswordEncoder quickPasswords() {
        return new BCryptPasswordEncoder(QUICKEST);
    }
}
