package org.vastporch.server.rows;

import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import org.jspecify.annotations.Nullable;

/** How times and empty cells go into the database and come out of it, in one place. */
public final class Rows {

    private Rows() {}

    public static @Nullable OffsetDateTime utc(@Nullable Instant moment) {
        return moment == null ? null : moment.atOffset(ZoneOffset.UTC);
    }

    public static @Nullable Instant instant(ResultSet row, String column) throws SQLException {
        OffsetDateTime time = row.getObject(column, OffsetDateTime.class);
        return time == null ? null : time.toInstant();
    }

    public static @Nullable Long number(ResultSet row, String column) throws SQLException {
        long value = row.getLong(column);
        return row.wasNull() ? null : value;
    }

    public static @Nullable Integer integer(ResultSet row, String column) throws SQLException {
        int value = row.getInt(column);
        return row.wasNull() ? null : value;
    }

    /** Points as people write them: without noughts behind the last figure that counts. */
    public static @Nullable BigDecimal points(ResultSet row, String column) throws SQLException {
        BigDecimal points = row.getBigDecimal(column);
        return points == null
                ? null
                : new BigDecimal(points.stripTrailingZeros().toPlainString());
    }
}
