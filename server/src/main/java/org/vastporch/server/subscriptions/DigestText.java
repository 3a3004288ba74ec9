package org.vastporch.server.subscriptions;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jsoup.nodes.Entities;
import org.vastporch.server.subscriptions.NewsService.NewsItem;

/** A mail about what is new, as text and as HTML that says the same. */
record DigestText(String subject, String text, String html) {

    private static final int MOST_FOR_EACH = 30;

    /** @param byRule whether a class of its reader writes without being asked */
    static DigestText of(List<NewsItem> items, boolean byRule, String base, String stop) {
        String why = byRule
                ? "You get this because a class of yours writes to its members until they switch it off."
                : "You get this because you asked for it in Vast Porch.";
        Map<String, List<NewsItem>> byClass = new LinkedHashMap<>();
        for (NewsItem item : items)
            byClass.computeIfAbsent(item.className(), name -> new ArrayList<>()).add(item);
        StringBuilder text = new StringBuilder();
        StringBuilder html = new StringBuilder("<!doctype html><html><body style=\"font:16px/1.5 "
                + "Georgia,serif;color:#22303a;background:#fbf7ef;margin:0;padding:24px\"><div "
                + "style=\"max-width:620px;margin:0 auto\">");
        byClass.forEach((name, list) -> {
            text.append(name).append("\n").append("=".repeat(name.length())).append("\n\n");
            html.append("<h1 style=\"font-size:22px;margin:18px 0 6px\">")
                    .append(Entities.escape(name))
                    .append("</h1>");
            for (NewsItem item : list.subList(0, Math.min(MOST_FOR_EACH, list.size()))) {
                String to = base + item.to();
                text.append(says(item)).append('\n');
                if (!item.lines().isEmpty())
                    text.append("  ").append(item.lines()).append('\n');
                text.append("  ").append(to).append("\n\n");
                html.append("<p style=\"margin:14px 0 0\"><a style=\"color:#25666a\" href=\"")
                        .append(Entities.escape(to))
                        .append("\">")
                        .append(Entities.escape(says(item)))
                        .append("</a>");
                if (!item.lines().isEmpty()) html.append("<br>").append(Entities.escape(item.lines()));
                html.append("</p>");
            }
            if (list.size() > MOST_FOR_EACH) {
                String rest = "And " + (list.size() - MOST_FOR_EACH) + " more: " + base + "/news";
                text.append(rest).append("\n\n");
                html.append("<p>").append(Entities.escape(rest)).append("</p>");
            }
        });
        text.append("--\n")
                .append(why)
                .append("\nChange it: ")
                .append(base)
                .append("/subscriptions\nStop all such mails: ")
                .append(stop)
                .append('\n');
        html.append("<p style=\"margin:28px 0 0;padding-top:10px;border-top:1px solid "
                        + "#e4dccd;font-size:14px;color:#55626b\">" + why + " <a style=\"color:#25666a\" href=\"")
                .append(Entities.escape(base + "/subscriptions"))
                .append("\">Change it</a> · <a style=\"color:#25666a\" href=\"")
                .append(Entities.escape(stop))
                .append("\">Stop all such mails</a></p></div></body></html>");
        String subject = items.size() == 1
                ? says(items.get(0))
                : items.size() + " new things in " + String.join(", ", byClass.keySet());
        return new DigestText(
                subject.length() > 200 ? subject.substring(0, 199) + "…" : subject, text.toString(), html.toString());
    }

    private static String says(NewsItem item) {
        return switch (item.kind()) {
            case "POST" -> item.by() + " published “" + item.title() + "”";
            case "COMMENT" -> item.by() + " commented on “" + item.title() + "”";
            case "ANSWER" -> item.by() + " answered you under “" + item.title() + "”";
            case "WORD" -> item.by() + " has a private word for you about “" + item.title() + "”";
            case "RETURNED" -> item.by() + " returned “" + item.title() + "” with a note";
            case "SOURCE" ->
                "Nothing could be read for days from the outside blog “" + item.title() + "”"
                        + (item.by().isEmpty() ? "" : " of " + item.by());
            case "SCORE" -> "What you did for “" + item.title() + "” is marked";
            case "RESCORED" -> "Your score for “" + item.title() + "” was changed";
            case "OWN_DATE" -> "You have a date of your own for “" + item.title() + "”";
            case "LET_OFF" -> "You were let off “" + item.title() + "”";
            case "TO_REVIEW" -> "You have papers to review for “" + item.title() + "”";
            case "SECOND_ASKED" -> item.by() + " asks you to read papers for “" + item.title() + "” a second time";
            case "REVIEW_REMINDER" -> "Your reviews for “" + item.title() + "” are due soon";
            case "REVIEW_RETURNED" -> "A review of yours for “" + item.title() + "” came back to you";
            case "REVIEWED" -> "Classmates have reviewed your paper for “" + item.title() + "”";
            case "AGAIN" -> "You may hand in again for “" + item.title() + "”";
            case "PROMPT_CHOSEN" -> item.by() + " said which prompt “" + item.title() + "” answers";
            case "WARM_UP_ASKED" -> item.by() + " would like reviewers to warm up on “" + item.title() + "”";
            case "EXAMPLE_ASKED" -> item.by() + " would like to show “" + item.title() + "” as an example";
            case "QUESTION_ANSWERED" -> item.by() + " answered your question under “" + item.title() + "”";
            case "FEEDBACK_WORD" -> item.by() + " has a private word for you about “" + item.title() + "”";
            case "FEEDBACK_ANSWERED" -> item.by() + " answered to the marks for “" + item.title() + "”";
            case "HIDDEN" -> item.by() + " hid “" + item.title() + "”";
            default -> item.by() + " approved “" + item.title() + "”";
        };
    }
}
