package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import org.vastporch.core.feeds.EntryIdentity.Known;

/** Feeds whose entries share an id or a link: nothing is overwritten, nothing comes twice. */
class EntryKeysTest {

    /** A gatherer that keeps what it reads, as the school does. */
    private static final class Kept {
        final Map<String, Known> entries = new HashMap<>();

        /** Reads a document and tells how many entries were new and how many changed. */
        String read(List<Entry> document) {
            int fresh = 0;
            int changed = 0;
            List<String> keys = EntryIdentity.keysOf(document, key -> Optional.ofNullable(entries.get(key)));
            for (int i = 0; i < keys.size(); i++) {
                assertTrue(keys.get(i).length() <= 440, "a key fits its column");
                String link = document.get(i).link();
                Known now = new Known(
                        link == null || link.isBlank() ? "" : EntryIdentity.cleanLink(link),
                        EntryIdentity.contentHash(document.get(i)));
                Known before = entries.put(keys.get(i), now);
                if (before == null) fresh++;
                else if (!before.equals(now)) changed++;
            }
            return fresh + " new, " + changed + " changed";
        }
    }

    private static Entry entry(String id, String link, String text) {
        return new Entry(id, link, "Oars", text, null, null, List.of());
    }

    private static final Entry ASH = entry("1", "http://a.example/ash", "Ash");
    private static final Entry OAK = entry("1", "http://a.example/oak", "Oak");
    private static final Entry ELM = entry("1", "http://a.example/elm", "Elm");

    /** Entries without an id were once kept under their link as if it were one: they do not come a second time. */
    @Test
    void whatWasKeptUnderItsLinkKeepsThatKey() {
        Entry bare = entry(null, "http://a.example/ash", "Ash");
        Kept kept = new Kept();
        kept.entries.put("id:http://a.example/ash", new Known("http://a.example/ash", EntryIdentity.contentHash(bare)));
        assertEquals("0 new, 0 changed", kept.read(List.of(bare)));
        Entry named = entry("http://a.example/ash", "http://a.example/other", "Other");
        List<String> keys =
                EntryIdentity.keysOf(List.of(bare, named), key -> Optional.ofNullable(kept.entries.get(key)));
        assertEquals(2, Set.copyOf(keys).size(), "unless another goes by that name");
        assertTrue(EntryIdentity.candidates(List.of(bare)).contains("id:http://a.example/ash"));
    }

    @Test
    void entriesOfOneIdAreToldApartByTheirLinks() {
        Kept kept = new Kept();
        assertEquals("2 new, 0 changed", kept.read(List.of(ASH, OAK)));
        assertEquals("0 new, 0 changed", kept.read(List.of(ASH, OAK)));
        assertEquals("1 new, 0 changed", kept.read(List.of(ELM, ASH, OAK)));
        assertEquals("0 new, 0 changed", kept.read(List.of(ELM)), "one that is left alone is still known");
        assertEquals("0 new, 1 changed", kept.read(List.of(entry("1", "http://a.example/elm", "Elm!"), OAK)));
    }

    @Test
    void oneThatWasAloneStaysItselfWhenOthersTakeItsId() {
        Kept kept = new Kept();
        assertEquals("1 new, 0 changed", kept.read(List.of(ASH)));
        assertEquals("1 new, 0 changed", kept.read(List.of(OAK, ASH)));
        assertEquals("0 new, 0 changed", kept.read(List.of(OAK)));
        assertEquals("0 new, 0 changed", kept.read(List.of(ASH)));
    }

    @Test
    void oneThatMovesOnTheSiteStaysItselfWhileItsIdIsItsOwn() {
        Kept kept = new Kept();
        kept.read(List.of(ASH));
        assertEquals("0 new, 1 changed", kept.read(List.of(entry("1", "http://a.example/2026/ash", "Ash"))));
        assertEquals("0 new, 0 changed", kept.read(List.of(entry("1", "http://a.example/2026/ash?utm_x=1", "Ash"))));
    }

    @Test
    void entriesOfOneLinkAreToldApartByTheirTexts() {
        Entry first = entry(null, "http://a.example/", "Monday");
        Entry second = entry(null, "http://a.example/", "Tuesday");
        Kept kept = new Kept();
        assertEquals("1 new, 0 changed", kept.read(List.of(first)));
        assertEquals("1 new, 0 changed", kept.read(List.of(second, first)));
        assertEquals("0 new, 0 changed", kept.read(List.of(second, first)));
        assertEquals("0 new, 0 changed", kept.read(List.of(second)), "alone");
    }

    @Test
    void theSameEntryTwiceInADocumentIsOne() {
        Kept kept = new Kept();
        assertEquals("1 new, 0 changed", kept.read(List.of(ASH, ASH)));
        assertEquals("0 new, 0 changed", kept.read(List.of(ASH)));
    }

    /**
     * Law: whatever entries share, the same document read twice changes nothing, and what differs in id, link or text
     * has keys that differ.
     */
    @Test
    void theSameDocumentTwiceChangesNothing() {
        Random random = new Random(5);
        for (int i = 0; i < 3_000; i++) {
            Kept kept = new Kept();
            for (int documents = 0; documents < 4; documents++) {
                List<Entry> document = new ArrayList<>();
                for (int n = random.nextInt(6); n >= 0; n--)
                    document.add(entry(
                            random.nextInt(3) == 0 ? null : "id" + random.nextInt(2),
                            random.nextInt(3) == 0 ? null : "http://a.example/" + random.nextInt(3),
                            "text " + random.nextInt(3)));
                kept.read(document);
                List<String> keys = EntryIdentity.keysOf(document, key -> Optional.ofNullable(kept.entries.get(key)));
                assertEquals("0 new, 0 changed", kept.read(document), document::toString);
                Set<Entry> different = new HashSet<>(document);
                assertEquals(different.size(), new HashSet<>(keys).size(), document::toString);
            }
        }
    }

    @Test
    void longIdsAreShortenedAndStillToldApart() {
        String id = "x".repeat(900);
        List<String> keys = EntryIdentity.keysOf(
                List.of(entry(id, "http://a.example/1", "a"), entry(id, "http://a.example/2", "a")),
                key -> Optional.empty());
        assertNotEquals(keys.get(0), keys.get(1));
        assertTrue(keys.get(0).length() <= 440);
    }
}
