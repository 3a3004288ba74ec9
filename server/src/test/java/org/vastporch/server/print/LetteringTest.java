package org.vastporch.server.print;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.api.Test;

class LetteringTest {

    @Test
    void drawsWhatTheMainFontLacks() {
        assertEquals("Ñandú &amp; Łęcka Ωμέγα", Lettering.html("Ñandú & Łęcka Ωμέγα", 14));
        for (String name : new String[] {"سمير حداد", "小龙 李", "अनिल कुमार", "שרה כהן", "김 민준", "ქეთევან", "Ada 小龙"})
            assertTrue(Lettering.html(name, 14).startsWith("<img alt='" + name + "'"), name);
        assertEquals("", Lettering.html("\uE000\uE001", 14), "letters that nobody has");
    }
}
