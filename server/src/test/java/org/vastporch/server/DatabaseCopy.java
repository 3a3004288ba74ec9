package org.vastporch.server;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import javax.sql.DataSource;

/** All rows of a small database, to be compared with what it holds later, and to be put back. */
final class DatabaseCopy {

    private final Map<String, List<List<Object>>> tables = new TreeMap<>();

    static DatabaseCopy of(DataSource source) {
        try (Connection connection = source.getConnection();
                Statement statement = connection.createStatement()) {
            List<String> names = new ArrayList<>();
            try (ResultSet found = statement.executeQuery("""
                            select table_name
                             from information_schema.tables
                             where table_schema = 'PUBLIC' and table_type = 'BASE TABLE' and table_name not like
                                'flyway%'""")) {
                while (found.next()) names.add(found.getString(1).toLowerCase());
            }
            return of(statement, names);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The rows of some tables, in small letters. */
    static DatabaseCopy of(DataSource source, Set<String> names) {
        try (Connection connection = source.getConnection();
                Statement statement = connection.createStatement()) {
            return of(statement, names);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    private static DatabaseCopy of(Statement statement, Collection<String> names) throws SQLException {
        DatabaseCopy copy = new DatabaseCopy();
        for (String name : names)
            copy.tables.put(name, rows(statement, "select * from \"" + name.toUpperCase() + "\""));
        return copy;
    }

    private static List<List<Object>> rows(Statement statement, String select) throws SQLException {
        try (ResultSet found = statement.executeQuery(select)) {
            int columns = found.getMetaData().getColumnCount();
            List<List<Object>> rows = new ArrayList<>();
            while (found.next()) {
                List<Object> row = new ArrayList<>();
                for (int i = 1; i <= columns; i++)
                    row.add(found.getObject(i) instanceof byte[] bytes ? new Bytes(bytes) : found.getObject(i));
                rows.add(row);
            }
            return rows;
        }
    }

    /** Bytes that are equal if they are the same. */
    private record Bytes(byte[] value) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Bytes bytes && Arrays.equals(value, bytes.value);
        }

        @Override
        public int hashCode() {
            return Arrays.hashCode(value);
        }
    }

    /** The tables whose rows are others now, of those that {@code now} holds. */
    TreeSet<String> changedTo(DatabaseCopy now) {
        return now.tables.keySet().stream()
                .filter(t -> !isSame(tables.get(t), now.tables.get(t)))
                .collect(Collectors.toCollection(TreeSet::new));
    }

    private static boolean isSame(List<List<Object>> rows, List<List<Object>> others) {
        return rows.equals(others) || counted(rows).equals(counted(others));
    }

    private static Map<List<Object>, Long> counted(List<List<Object>> rows) {
        return rows.stream().collect(Collectors.groupingBy(row -> row, Collectors.counting()));
    }

    /**
     * Puts the rows of some tables back as they were: takes out what was not there, puts in what is not there any more.
     */
    void putBack(DataSource source, Collection<String> changed) {
        try (Connection connection = source.getConnection();
                Statement statement = connection.createStatement()) {
            statement.execute("set referential_integrity false");
            for (String table : changed) putBack(connection, statement, table);
            statement.execute("set referential_integrity true");
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    private void putBack(Connection connection, Statement statement, String table) throws SQLException {
        String name = "\"" + table.toUpperCase() + "\"";
        Map<List<Object>, Long> missing = counted(tables.get(table));
        // The number of a row in the database stands before its columns.
        for (List<Object> numbered : rows(statement, "select _rowid_, t.* from " + name + " t")) {
            List<Object> row = numbered.subList(1, numbered.size());
            if (missing.getOrDefault(row, 0L) > 0) missing.merge(row, -1L, Long::sum);
            else statement.execute("delete from " + name + " where _rowid_ = " + numbered.get(0));
        }
        for (Map.Entry<List<Object>, Long> row : missing.entrySet())
            for (long n = 0; n < row.getValue(); n++) insert(connection, name, row.getKey());
    }

    private static void insert(Connection connection, String name, List<Object> row) throws SQLException {
        String marks = row.stream().map(column -> "?").collect(Collectors.joining(", "));
        try (PreparedStatement insert =
                connection.prepareStatement("insert into " + name + " values (" + marks + ")")) {
            for (int i = 0; i < row.size(); i++)
                insert.setObject(i + 1, row.get(i) instanceof Bytes bytes ? bytes.value() : row.get(i));
            insert.executeUpdate();
        }
    }
}
