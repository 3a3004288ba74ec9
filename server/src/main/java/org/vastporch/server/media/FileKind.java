package org.vastporch.server.media;

import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.apache.tika.Tika;
import org.vastporch.server.http.Problem;

/** What an uploaded file is: known by its content, with its name and what its sender says of it only to tell brothers apart. */
final class FileKind {

    enum Kind { SOUND, VIDEO, DOCUMENT }

    record Known(Kind kind, String type, String name) {}

    private static final int LONGEST_NAME = 120;
    private static final Tika TIKA = new Tika();

    /** Containers that hold sound alone or a film. */
    private static final Map<String, String> CONTAINERS = Map.of("video/webm", "audio/webm", "application/x-matroska", "audio/webm", "video/x-matroska", "audio/webm",
        "video/mp4", "audio/mp4", "application/mp4", "audio/mp4", "video/quicktime", "audio/mp4", "audio/ogg", "audio/ogg", "video/ogg", "audio/ogg", "application/ogg", "audio/ogg");
    private static final Set<String> SOUNDS = Set.of("audio/mpeg", "audio/mp4", "audio/x-m4a", "audio/ogg", "audio/vorbis", "audio/opus", "audio/vnd.wave", "audio/x-wav", "audio/x-flac", "audio/flac", "audio/aac", "audio/x-aac", "audio/webm");
    private static final Set<String> VIDEOS = Set.of("video/mp4", "video/webm", "video/ogg", "video/quicktime", "video/x-m4v");
    private static final Map<String, String> DOCUMENTS = Map.ofEntries(
        Map.entry("pdf", "application/pdf"), Map.entry("txt", "text/plain"), Map.entry("csv", "text/csv"), Map.entry("rtf", "application/rtf"),
        Map.entry("docx", "application/vnd.openxmlformats-officedocument.wordprocessingml.document"), Map.entry("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
        Map.entry("pptx", "application/vnd.openxmlformats-officedocument.presentationml.presentation"), Map.entry("odt", "application/vnd.oasis.opendocument.text"),
        Map.entry("ods", "application/vnd.oasis.opendocument.spreadsheet"), Map.entry("odp", "application/vnd.oasis.opendocument.presentation"), Map.entry("epub", "application/epub+zip"),
        Map.entry("gpx", "application/gpx+xml"));
    private static final Set<String> ZIPPED = Set.of("docx", "xlsx", "pptx", "odt", "ods", "odp", "epub");

    private FileKind() {}

    /**
     * @param declared the type that the sender's browser gives it
     * @throws Problem if files of this kind are not taken, or it is not what its name says
     */
    static Known of(byte[] bytes, String fileName, String declared) {
        if (bytes.length == 0) throw notTaken("This file is empty.");
        String name = tidy(fileName);
        String ending = name.contains(".") ? name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT) : "";
        String found = TIKA.detect(bytes);
        boolean saysSound = declared.startsWith("audio/") || Set.of("mp3", "m4a", "oga", "opus", "weba").contains(ending);
        if (CONTAINERS.containsKey(found) && saysSound) return new Known(Kind.SOUND, CONTAINERS.get(found), name);
        if (SOUNDS.contains(found)) return new Known(Kind.SOUND, found.equals("audio/vnd.wave") ? "audio/wav" : found.equals("audio/x-m4a") ? "audio/mp4" : found, name);
        if (found.endsWith("matroska")) return new Known(Kind.VIDEO, "video/webm", name);
        if (VIDEOS.contains(found) || found.equals("application/mp4")) return new Known(Kind.VIDEO, found.startsWith("video/") && !found.equals("video/quicktime") ? found : "video/mp4", name);
        String wanted = DOCUMENTS.get(ending);
        if (wanted != null && isSo(ending, wanted, found)) return new Known(Kind.DOCUMENT, wanted, name);
        if (wanted != null) throw notTaken("Its name says ." + ending + ", but that is not what is in this file.");
        if (found.startsWith("image/")) throw notTaken("This is a picture. Put it in with Picture.");
        throw notTaken("Files of this kind are not taken. Sound, video, PDF, text and office documents are.");
    }

    private static boolean isSo(String ending, String wanted, String found) {
        if (ZIPPED.contains(ending)) return found.equals(wanted) || found.equals("application/zip") || found.equals("application/x-tika-ooxml");
        return switch (ending) {
            case "txt", "csv" -> found.startsWith("text/plain") || found.equals("text/csv");
            case "gpx" -> found.equals("application/xml") || found.equals("application/gpx+xml");
            default -> found.equals(wanted);
        };
    }

    /** A file name without path, control or direction marks, of a length that can be read. */
    private static String tidy(String name) {
        String bare = name.replaceAll("^.*[/\\\\]", "").replaceAll("[\\p{Cntrl}\\p{Cf}\"<>|:*?%#]", "").replaceAll("\\s+", " ").strip();
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
