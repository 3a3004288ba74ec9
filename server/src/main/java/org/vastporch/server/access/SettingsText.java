package org.vastporch.server.access;

import org.vastporch.core.blogs.BlogSettings;
import tools.jackson.databind.json.JsonMapper;

/** The settings of a blog as the text that its row keeps; an empty text stands for the usual ones. */
public final class SettingsText {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    private SettingsText() {}

    public static BlogSettings read(String text) {
        return text.isEmpty() ? BlogSettings.USUAL : JSON.readValue(text, BlogSettings.class);
    }

    public static String write(BlogSettings settings) {
        return JSON.writeValueAsString(settings);
    }
}
