package org.vastporch.core.tables;

import static org.junit.jupiter.api.Assertions.*;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.Refusal;

class TableFileTest {

    private static final String LIST = "Łukasz;Ó Briain\nWren;Castellane\n";

    @Test
    void theEncodingIsFoundByLooking() {
        assertEquals(LIST, TableFile.text(LIST.getBytes(StandardCharsets.UTF_8)));
        assertEquals(LIST, TableFile.text(LIST.getBytes(StandardCharsets.UTF_16LE)));
        assertEquals(LIST, TableFile.text(LIST.getBytes(StandardCharsets.UTF_16BE)));
        assertEquals(LIST, TableFile.text(("\uFEFF" + LIST).getBytes(StandardCharsets.UTF_16LE)));
        assertEquals(LIST, TableFile.text(("\uFEFF" + LIST).getBytes(StandardCharsets.UTF_16BE)));
        String latin = "Böhm;Liesel\n";
        assertEquals(latin, TableFile.text(latin.getBytes(Charset.forName("windows-1252"))));
        assertEquals("", TableFile.text(new byte[0]));
        assertEquals("a", TableFile.text(new byte[] {'a'}));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"%PDF-1.7", "PK\3\4 sheet", "\u00d0\u00cf\u0011\u00e0 old", "\u0089PNG", "\u00ff\u00d8\u00ff"})
    void whatIsAnotherKindOfFileIsNamed(String begins) {
        Refusal refusal = assertThrows(
                Refusal.class, () -> TableFile.text((begins + " and more").getBytes(StandardCharsets.ISO_8859_1)));
        assertEquals("table-other-file", refusal.code());
        assertTrue(refusal.getMessage().startsWith("This is a"), refusal::getMessage);
    }

    @Test
    void whatIsNoTextIsRefused() {
        byte[] bytes = "Wren,Castellane and many others".getBytes(StandardCharsets.UTF_8);
        bytes[9] = 0;
        assertEquals(
                "table-other-file",
                assertThrows(Refusal.class, () -> TableFile.text(bytes)).code());
    }
}
