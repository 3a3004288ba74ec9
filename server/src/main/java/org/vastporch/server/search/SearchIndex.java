package org.vastporch.server.search;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.apache.lucene.document.Document;
import org.apache.lucene.document.Field;
import org.apache.lucene.document.StringField;
import org.apache.lucene.document.TextField;
import org.apache.lucene.index.IndexWriter;
import org.apache.lucene.index.IndexWriterConfig;
import org.apache.lucene.index.Term;
import org.apache.lucene.search.BooleanClause.Occur;
import org.apache.lucene.search.BooleanQuery;
import org.apache.lucene.search.BoostQuery;
import org.apache.lucene.search.ConstantScoreQuery;
import org.apache.lucene.search.IndexSearcher;
import org.apache.lucene.search.PrefixQuery;
import org.apache.lucene.search.Query;
import org.apache.lucene.search.ScoreDoc;
import org.apache.lucene.search.SearcherManager;
import org.apache.lucene.search.TermQuery;
import org.apache.lucene.store.ByteBuffersDirectory;
import org.apache.lucene.store.Directory;
import org.apache.lucene.store.FSDirectory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * Which texts have which words: an index that is made anew at each start and kept beside the database. It holds no text and decides nothing:
 * what it finds are candidates, and only what the reader's scope takes in is ever shown.
 */
@Component
class SearchIndex {

    /** What can be found. {@code id} is the number of a post or comment, or that of a file. */
    record Entry(String kind, String id, long postId, long classId, long authorId, String title, String text) {
        String key() {
            return kind + id;
        }
    }

    record Candidate(String kind, String id, long postId) {}

    private final Directory directory;
    private final IndexWriter writer;
    private final SearcherManager searchers;
    private volatile boolean complete;

    SearchIndex(@Value("${spring.datasource.url}") String database, @Value("${vastporch.data:./data}") Path data) throws IOException {
        directory = database.startsWith("jdbc:h2:mem:") ? new ByteBuffersDirectory() : FSDirectory.open(empty(data.resolve("search")));
        writer = new IndexWriter(directory, new IndexWriterConfig(Words.ANALYZER).setOpenMode(IndexWriterConfig.OpenMode.CREATE).setRAMBufferSizeMB(48));
        searchers = new SearcherManager(writer, null);
    }

    private static Path empty(Path folder) throws IOException {
        if (Files.exists(folder))
            try (Stream<Path> files = Files.walk(folder)) {
                for (Path file : files.sorted(Comparator.reverseOrder()).toList()) Files.delete(file);
            }
        return Files.createDirectories(folder);
    }

    /** Takes a text in, in place of what was known of it. */
    void put(Entry entry) {
        Document doc = document(entry);
        run(() -> writer.updateDocument(new Term("key", entry.key()), doc));
    }

    /** Takes in all texts that there are, in place of everything that was known. */
    void fill(Consumer<Consumer<Entry>> all) {
        complete = false;
        run(writer::deleteAll);
        all.accept(entry -> run(() -> writer.addDocument(document(entry))));
        refresh();
        complete = true;
    }

    /** Whether all texts have been taken in since the start. */
    boolean isComplete() {
        return complete;
    }

    private static Document document(Entry entry) {
        Document doc = new Document();
        doc.add(new StringField("key", entry.key(), Field.Store.NO));
        doc.add(new StringField("kind", entry.kind(), Field.Store.YES));
        doc.add(new StringField("id", entry.id(), Field.Store.YES));
        doc.add(new StringField("post", String.valueOf(entry.postId()), Field.Store.YES));
        doc.add(new StringField("class", String.valueOf(entry.classId()), Field.Store.NO));
        doc.add(new StringField("author", String.valueOf(entry.authorId()), Field.Store.NO));
        doc.add(new TextField("title", entry.title(), Field.Store.NO));
        doc.add(new TextField("text", entry.text(), Field.Store.NO));
        doc.add(new TextField("raw", entry.title() + "\n" + entry.text(), Field.Store.NO));
        return doc;
    }

    void remove(String kind, String id) {
        run(() -> writer.deleteDocuments(new Term("key", kind + id)));
    }

    /** Takes out the files of a post, before those that it has now are put in. */
    void removeFiles(long postId) {
        Query files = new BooleanQuery.Builder().add(new TermQuery(new Term("kind", "file")), Occur.FILTER).add(new TermQuery(new Term("post", String.valueOf(postId))), Occur.FILTER).build();
        run(() -> writer.deleteDocuments(files));
    }

    /** Lets searches see what was put in since. */
    void refresh() {
        run(searchers::maybeRefreshBlocking);
    }

    /** Takes out what a person wrote and all about some posts, so that no word of it is left in the files of the index. */
    void purge(long personId, Collection<Long> posts) {
        run(() -> {
            writer.deleteDocuments(new Term("author", String.valueOf(personId)));
            for (long post : posts) writer.deleteDocuments(new Term("post", String.valueOf(post)));
            writer.forceMergeDeletes();
            writer.commit();
            searchers.maybeRefreshBlocking();
            writer.deleteUnusedFiles();
        });
    }

    /**
     * Texts that have all the words, the best first; the last word may be the beginning of one. Those of some classes come before others.
     *
     * @param kind post, comment or file; empty for all
     */
    List<Candidate> find(List<Words.Word> words, String kind, Collection<Long> near, int skip, int most) {
        if (words.isEmpty()) return List.of();
        BooleanQuery.Builder all = new BooleanQuery.Builder();
        for (int i = 0; i < words.size(); i++) all.add(either(words.get(i), i == words.size() - 1), Occur.MUST);
        if (!kind.isEmpty()) all.add(new TermQuery(new Term("kind", kind)), Occur.FILTER);
        for (long classId : near) all.add(new BoostQuery(new ConstantScoreQuery(new TermQuery(new Term("class", String.valueOf(classId)))), 20), Occur.SHOULD);
        try {
            IndexSearcher searcher = searchers.acquire();
            try {
                ScoreDoc[] found = searcher.search(all.build(), skip + most).scoreDocs;
                List<Candidate> candidates = new ArrayList<>();
                for (int i = skip; i < found.length; i++) {
                    Document doc = searcher.storedFields().document(found[i].doc);
                    candidates.add(new Candidate(doc.get("kind"), doc.get("id"), Long.parseLong(doc.get("post"))));
                }
                return candidates;
            } finally {
                searchers.release(searcher);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Query either(Words.Word word, boolean begun) {
        BooleanQuery.Builder any = new BooleanQuery.Builder()
            .add(new BoostQuery(new TermQuery(new Term("title", word.stem())), 3), Occur.SHOULD)
            .add(new TermQuery(new Term("text", word.stem())), Occur.SHOULD);
        if (begun && word.folded().length() > 1) any.add(new PrefixQuery(new Term("raw", word.folded())), Occur.SHOULD);
        return any.build();
    }

    private interface Act {
        void run() throws IOException;
    }

    private static void run(Act act) {
        try {
            act.run();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @PreDestroy
    void close() throws IOException {
        searchers.close();
        writer.close();
        directory.close();
    }
}
