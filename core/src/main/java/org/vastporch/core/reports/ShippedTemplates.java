package org.vastporch.core.reports;

import java.util.List;

/** The templates that every school has. */
public final class ShippedTemplates {

    private static final String SCORES = """
            <div data-each="paper">
            <h2><span data-field="prompt"></span></h2>
            <p><span data-field="state"></span><span data-if="scored">: <b><span data-field="score"></span> of
            <span data-field="out-of"></span> points</b></span><span data-if="late">. It came late</span>.</p>
            <ul data-if="scored">
            <li data-each="criterion"><span data-field="criterion"></span>: <b><span data-field="level"></span></b>, step
            <span data-field="step"></span>. <span data-field="descriptor"></span>
            <span data-if="remark"><i><span data-field="remark"></span></i></span></li>
            </ul>
            <p data-if="word"><i><span data-field="word"></span></i></p>
            </div>
            """;

    private static final String NOTE = """
            <p data-if="note"><span data-field="note"></span></p>
            """;

    private static final String NEXT = """
            <div data-if="next"><h2>What comes next</h2><ul>
            <li data-each="next"><span data-field="next-prompt"></span>, due <span data-field="next-due"></span></li>
            </ul></div>
            """;

    public static final List<ReportTemplate> ALL = List.of(
            new ReportTemplate("letter", "A letter to the student", """
            <h1>Your <span data-field="week"></span></h1>
            <p>Dear <span data-field="student"></span>,</p>
            <p>this is what we have of yours in <span data-field="class"></span> from <span data-field="days"></span>.</p>
            """ + NOTE + """
            <div data-if="posts"><p>You wrote:</p><ul>
            <li data-each="post">“<span data-field="post-title"></span>”, <span data-field="post-day"></span></li>
            </ul></div>
            <p data-if="no-posts">Nothing of yours went up in these days.</p>
            <p>You gave classmates <span data-field="given"></span>, and got <span data-field="received"></span> from them.</p>
            """ + SCORES + NEXT),
            new ReportTemplate("home", "One page for home", """
            <h1><span data-field="student"></span>, <span data-field="week"></span></h1>
            <p><span data-field="class"></span>, <span data-field="days"></span></p>
            """ + NOTE + """
            <p data-if="papers">Handed in on time: <b><span data-field="on-time"></span></b>.</p>
            <div data-if="posts"><h2>Written</h2><ul>
            <li data-each="post">“<span data-field="post-title"></span>”, <span data-field="post-day"></span></li>
            </ul></div>
            <p data-if="no-posts">Nothing was published in these days.</p>
            <p>To classmates: <span data-field="given"></span>; from classmates: <span data-field="received"></span>.</p>
            """ + SCORES + NEXT),
            new ReportTemplate("scores", "Scores and words alone", """
            <h1><span data-field="student"></span>, <span data-field="week"></span></h1>
            """ + NOTE + SCORES));

    private ShippedTemplates() {}
}
