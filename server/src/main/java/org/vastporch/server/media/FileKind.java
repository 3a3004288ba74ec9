package org.vastporch.server.media;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import org.apache.tika.Tika;
import org.vastporch.server.http.Problem;

/**
 * What an uploaded file is: known by its content, with what its sender says of it only to tell brothers apart. Its name
 * has to fit, so that it is what it says also on the computer of whoever saves it.
 */
final class FileKind {

    enum Kind {
        SOUND,
        VIDEO,
        DOCUMENT
    }

    record Known(Kind kind, String type, String name) {}

    private static final int LONGEST_NAME = 120;
    private static final int HEAD = 65_536;
    private static final Tika TIKA = new Tika();

    /** Containers that hold sound alone or a film. */
    private static final Map<String, String> CONTAINERS = Map.of(
            "video/webm",
            "audio/webm",
            "application/x-matroska",
            "audio/webm",
            "video/x-matroska",
            "audio/webm",
            "video/mp4",
            "audio/mp4",
            "application/mp4",
            "audio/mp4",
            "video/quicktime",
            "audio/mp4",
            "audio/ogg",
            "audio/ogg",
            "video/ogg",
            "audio/ogg",
            "application/ogg",
            "audio/ogg");

    private static final Map<String, String> SOUNDS = Map.ofEntries(
            Map.entry("audio/mpeg", "audio/mpeg"),
            Map.entry("audio/mp4", "audio/mp4"),
            Map.entry("audio/x-m4a", "audio/mp4"),
            Map.entry("audio/ogg", "audio/ogg"),
            Map.entry("audio/vorbis", "audio/ogg"),
            Map.entry("audio/opus", "audio/ogg"),
            Map.entry("audio/vnd.wave", "audio/wav"),
            Map.entry("audio/x-wav", "audio/wav"),
            Map.entry("audio/x-flac", "audio/flac"),
            Map.entry("audio/flac", "audio/flac"),
            Map.entry("audio/aac", "audio/aac"),
            Map.entry("audio/x-aac", "audio/aac"),
            Map.entry("audio/webm", "audio/webm"));
    private static final Map<String, String> VIDEOS = Map.of(
            "video/mp4",
            "video/mp4",
            "application/mp4",
            "video/mp4",
            "video/quicktime",
            "video/mp4",
            "video/x-m4v",
            "video/mp4",
            "video/webm",
            "video/webm",
            "application/x-matroska",
            "video/webm",
            "video/x-matroska",
            "video/webm",
            "video/ogg",
            "video/ogg");
    /** How the name of a sound or video ends; the first is given to one that has no ending. */
    private static final Map<String, List<String>> ENDINGS = Map.ofEntries(
            Map.entry("audio/mpeg", List.of("mp3", "mpga")),
            Map.entry("audio/mp4", List.of("m4a", "mp4", "m4b", "aac")),
            Map.entry("audio/ogg", List.of("ogg", "oga", "opus")),
            Map.entry("audio/wav", List.of("wav")),
            Map.entry("audio/flac", List.of("flac")),
            Map.entry("audio/aac", List.of("aac")),
            Map.entry("audio/webm", List.of("weba", "webm", "mka")),
            Map.entry("video/mp4", List.of("mp4", "m4v", "mov")),
            Map.entry("video/webm", List.of("webm", "mkv")),
            Map.entry("video/ogg", List.of("ogv", "ogg")));

    private static final Map<String, String> DOCUMENTS = Map.ofEntries(
            Map.entry("pdf", "application/pdf"),
            Map.entry("txt", "text/plain"),
            Map.entry("csv", "text/csv"),
            Map.entry("rtf", "application/rtf"),
            Map.entry("docx", "application/vnd.openxmlformats-officedocument.wordprocessingml.document"),
            Map.entry("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
            Map.entry("pptx", "application/vnd.openxmlformats-officedocument.presentationml.presentation"),
            Map.entry("odt", "application/vnd.oasis.opendocument.text"),
            Map.entry("ods", "application/vnd.oasis.opendocument.spreadsheet"),
            Map.entry("odp", "application/vnd.oasis.opendocument.presentation"),
            Map.entry("epub", "application/epub+zip"),
            Map.entry("gpx", "application/gpx+xml"));
    /** A part that every file of the kind has. */
    private static final Map<String, String> PARTS =
            Map.of("docx", "word/document.xml", "xlsx", "xl/workbook.xml", "pptx", "ppt/presentation.xml");

    private static final Set<String> WITH_MIMETYPE = Set.of("odt", "ods", "odp", "epub");

    private FileKind() {}

    /** @throws Problem if files of this kind are not taken, or it is not what its name says */
    static Known of(Upload upload) throws IOException {
        if (upload.size() == 0) throw notTaken("This file is empty.");
        String name = tidy(upload.name());
        String ending = endingOf(name);
        String found = TIKA.detect(upload.file());
        boolean saysSound = upload.declared().startsWith("audio/")
                || Set.of("mp3", "m4a", "oga", "opus", "weba").contains(ending);
        if (CONTAINERS.containsKey(found) && saysSound) return playing(Kind.SOUND, CONTAINERS.get(found), name);
        if (found.equals("audio/mpeg") && !isMpegSound(upload))
            throw notTaken("Files of this kind are not taken. Sound, video, PDF, text and office documents are.");
        if (SOUNDS.containsKey(found)) return playing(Kind.SOUND, SOUNDS.get(found), name);
        if (VIDEOS.containsKey(found)) return playing(Kind.VIDEO, VIDEOS.get(found), name);
        String wanted = DOCUMENTS.get(ending);
        if (wanted != null && isSo(upload, ending, wanted, found)) return new Known(Kind.DOCUMENT, wanted, name);
        if (wanted != null) throw notTaken("Its name says ." + ending + ", but that is not what is in this file.");
        if (found.startsWith("image/")) throw notTaken("This is a picture. Put it in with Picture.");
        throw notTaken("Files of this kind are not taken. Sound, video, PDF, text and office documents are.");
    }

    private static Known playing(Kind kind, String type, String name) {
        List<String> endings = ENDINGS.get(type);
        String ending = endingOf(name);
        if (ending.isEmpty()) return new Known(kind, type, name + "." + endings.get(0));
        if (endings.contains(ending)) return new Known(kind, type, name);
        throw notTaken("Its name says ." + ending + ", but this is a "
                + kind.name().toLowerCase(Locale.ROOT) + ". Give it a name that ends with ." + endings.get(0) + ".");
    }

    /** What stands after the last dot, if that can be an ending: a few letters and digits, in small letters. */
    private static String endingOf(String name) {
        String ending = name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        return name.contains(".") && ending.matches("[a-z0-9]{1,8}") ? ending : "";
    }

    /** Whether frames of sound follow the head that says so: anything can be written behind such a head. */
    private static boolean isMpegSound(Upload upload) throws IOException {
        try (InputStream in = upload.open()) {
            byte[] tag = in.readNBytes(10);
            long skip = 0;
            // ID3v2.4, 3.1: the length stands in four bytes of seven bits.
            if (tag.length == 10 && tag[0] == 'I' && tag[1] == 'D' && tag[2] == '3')
                skip = ((tag[6] & 0x7f) << 21 | (tag[7] & 0x7f) << 14 | (tag[8] & 0x7f) << 7 | tag[9] & 0x7f)
                        + ((tag[5] & 0x10) != 0 ? 10 : 0);
            else return isFrame(tag, 0);
            in.skipNBytes(Math.min(skip, Math.max(0, upload.size() - 10)));
            byte[] sound = in.readNBytes(HEAD);
            int at = 0;
            while (at < sound.length && sound[at] == 0) at++;
            return isFrame(sound, at);
        }
    }

    /** ISO 11172-3, 2.4.1.3: eleven bits that are set, and no reserved version, layer, bit rate or frequency. */
    private static boolean isFrame(byte[] bytes, int at) {
        if (at + 3 >= bytes.length) return false;
        int head = bytes[at + 1] & 0xff;
        int rates = bytes[at + 2] & 0xff;
        return (bytes[at] & 0xff) == 0xff
                && (head & 0xe0) == 0xe0
                && (head & 0x18) != 0x08
                && (head & 0x06) != 0
                && (rates & 0xf0) != 0xf0
                && (rates & 0x0c) != 0x0c;
    }

    private static boolean isSo(Upload upload, String ending, String wanted, String found) throws IOException {
        if (PARTS.containsKey(ending) || WITH_MIMETYPE.contains(ending)) return isPacked(upload, ending, wanted);
        return switch (ending) {
            case "txt", "csv" -> found.startsWith("text/plain") || found.equals("text/csv");
            case "gpx" -> found.equals("application/xml") || found.equals("application/gpx+xml");
            default -> found.equals(wanted);
        };
    }

    /** Looks at the list of an archive and unpacks nothing of it, but a few letters that say what it is. */
    private static boolean isPacked(Upload upload, String ending, String wanted) throws IOException {
        try (ZipFile zip = new ZipFile(upload.file().toFile())) {
            if (zip.stream()
                    .anyMatch(part -> part.getName().toLowerCase(Locale.ROOT).endsWith("vbaproject.bin")))
                throw notTaken("This document carries a program (macros). Save it without and try again.");
            if (PARTS.containsKey(ending)) return zip.getEntry(PARTS.get(ending)) != null;
            ZipEntry says = zip.getEntry("mimetype");
            if (says == null) return false;
            try (InputStream in = zip.getInputStream(says)) {
                return new String(in.readNBytes(100), StandardCharsets.US_ASCII)
                        .strip()
                        .equals(wanted);
            }
        } catch (ZipException | IllegalArgumentException e) {
            return false;
        }
    }

    /** A file name without path, control or direction marks, of a length that can be read. */
    private static String tidy(String name) {
        String end = name.length() > 10 * LONGEST_NAME ? name.substring(name.length() - 10 * LONGEST_NAME) : name;
        String bare = end.replaceAll("^.*[/\\\\]", "")
                .replaceAll("[\\p{Cntrl}\\p{Cf}\"<>|:*?%#]", "")
                .replaceAll("\\s+", " ")
                .replaceAll("[. ]+$", "")
                .strip();
        if (bare.isEmpty()) bare = "file";
        if (bare.length() <= LONGEST_NAME) return bare;
        int dot = bare.lastIndexOf('.');
        String ending = dot > 0 && bare.length() - dot <= 10 ? bare.substring(dot) : "";
        return bare.substring(0, LONGEST_NAME - ending.length()) + ending;
    }

    private static Problem notTaken(String sentence) {
        return Problem.invalid("file", "file-not-taken", sentence);
    }
}
