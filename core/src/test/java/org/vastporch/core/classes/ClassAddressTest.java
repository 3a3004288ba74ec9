package org.vastporch.core.classes;

import static org.junit.jupiter.api.Assertions.*;

import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.Refusal;

class ClassAddressTest {

    @ParameterizedTest
    @CsvSource({
        "Plot to Plate, plot-to-plate",
        "'River Boats, Thursday evenings', river-boats-thursday-evenings",
        "News, news-2", // taken by the school itself
        "Kraut, kraut-3", // two classes had it before
        "???, class",
        "'', class"
    })
    void aNewClassGetsAnAddressOfItsOwn(String name, String address) {
        assertEquals(address, ClassAddress.make(name, Set.of("kraut", "kraut-2")::contains));
    }

    @Test
    void aWishIsMadeFit() {
        assertEquals("what-the-river-gave", ClassAddress.wished(" What the River gave! ", a -> false));
    }

    @ParameterizedTest
    @ValueSource(strings = {"api", "API", "sign in", "robots.txt", "mine"})
    void whatIsTakenIsRefused(String wish) {
        Refusal refused = assertThrows(Refusal.class, () -> ClassAddress.wished(wish, "mine"::equals));
        assertEquals("address-taken", refused.code());
        assertEquals("address", refused.field());
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "   ", "???", "-"})
    void whatLeavesNothingIsRefused(String wish) {
        assertEquals(
                "address-empty",
                assertThrows(Refusal.class, () -> ClassAddress.wished(wish, a -> false))
                        .code());
    }
}
