package org.vastporch.server.media;

import jakarta.servlet.MultipartConfigElement;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.multipart.MultipartFile;
import org.vastporch.server.http.Asker;

/**
 * Where files lie while they come in: in the data folder, emptied at each start, so that a server that was killed
 * leaves nothing of anybody's.
 */
@Configuration
public class UploadFolder {

    private static final long MOST = 40L << 20;
    private static final long AROUND = 1L << 20;

    private final Path folder;

    UploadFolder(@Value("${vastporch.data:./data}") Path data) throws IOException {
        folder = Files.createDirectories(data.toAbsolutePath().resolve("uploads"));
        try (Stream<Path> left = Files.list(folder)) {
            for (Path file : List.copyOf(left.toList())) if (Files.isRegularFile(file)) Files.delete(file);
        }
    }

    /** A file as it came in a request. */
    public Upload take(MultipartFile part) throws IOException {
        Path file = newFile();
        part.transferTo(file);
        Asker.hearOut();
        return new Upload(
                file,
                part.getOriginalFilename() == null ? "" : part.getOriginalFilename(),
                part.getContentType() == null ? "" : part.getContentType(),
                part.getSize());
    }

    /** A file that is made here, or was fetched. */
    public Upload of(byte[] bytes, String name) throws IOException {
        return new Upload(Files.write(newFile(), bytes), name, "", bytes.length);
    }

    private Path newFile() throws IOException {
        return Files.createTempFile(folder, "in", "");
    }

    /** Nothing of a file is held in memory, however small it is. */
    @Bean
    MultipartConfigElement multipart() {
        return new MultipartConfigElement(folder.toString(), MOST, MOST + AROUND, 0);
    }
}
