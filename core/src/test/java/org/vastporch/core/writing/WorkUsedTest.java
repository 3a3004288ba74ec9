package org.vastporch.core.writing;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;

class WorkUsedTest {

    private static List<String> lines(WorkUsed... works) {
        return WorkUsed.references(List.of(works)).stream()
                .map(r -> r.lead() + r.title() + r.tail() + (r.address().isEmpty() ? "" : " " + r.address()))
                .toList();
    }

    @Test
    void standsInTheOrderOfAuthorsAndYears() {
        assertEquals(
                List.of(
                        "Castellane, W., Eze, C. O. and Kowhai, T. (2024). Beds and how to keep them. Hallow Press.",
                        "Ø, Å. (1999). Soil.",
                        "Sedge Hill allotment society (May 2026a). A is for aphid. https://sedge.example/a",
                        "Sedge Hill allotment society (May 2026b). Bees?",
                        "Zinc and lettuce (no date). The Slow Tide. https://tide.example/z"),
                lines(
                        new WorkUsed("Zinc and lettuce", "", "", "The Slow Tide", "https://tide.example/z"),
                        new WorkUsed("Bees?", "Sedge Hill allotment society", "May 2026", "", ""),
                        new WorkUsed("Soil", "Ø, Åse", "1999", "", ""),
                        new WorkUsed(
                                " A is  for aphid ",
                                "Sedge Hill allotment society",
                                "May 2026",
                                "",
                                "https://sedge.example/a"),
                        new WorkUsed(
                                "Beds and how to keep them",
                                "Castellane, Wren; Eze, Chidubem Obi; Kowhai, Tama",
                                "2024",
                                "Hallow Press",
                                "")));
    }

    @Test
    void refusesWhatCannotStandInAList() {
        assertEquals(
                "A source needs a title.",
                assertThrows(Refusal.class, () -> new WorkUsed(" ", "Eze, C.", "", "", ""))
                        .getMessage());
        assertThrows(Refusal.class, () -> new WorkUsed("x", "", "", "", "javascript:alert(1)"));
        assertThrows(Refusal.class, () -> new WorkUsed("x".repeat(501), "", "", "", ""));
        assertEquals(List.of("Eze (no date). x."), lines(new WorkUsed("x", "Eze,", "", "", "")));
    }

    private static WorkUsed work(String title, String address) {
        return new WorkUsed(title, "", "", "", address);
    }

    @Test
    void twoListsMeanTheSameWorkByItsAddressOrItsTitle() {
        WorkUsed book = work("A book of noises", "https://www.noises.example/book/#page9");
        assertTrue(book.isSame(work("Noises", "http://noises.example/book")));
        assertFalse(book.isSame(work("A book of noises", "https://noises.example/other")));
        assertTrue(book.isSame(work("A Book of NOISES", "")));
        assertFalse(book.isSame(work("A book of voices", "")));
        assertTrue(work("Café", "").isSame(work("Cafe", "")));
    }
}
