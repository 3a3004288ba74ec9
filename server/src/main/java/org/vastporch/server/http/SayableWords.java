package org.vastporch.server.http;

import org.springframework.stereotype.Component;
import org.vastporch.core.text.Sayable;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.deser.jdk.StringDeserializer;
import tools.jackson.databind.deser.std.StdScalarDeserializer;
import tools.jackson.databind.module.SimpleModule;

/**
 * Words come in without what could not be given out again: one half of a character in a tag would break the feed of a
 * whole class.
 */
@Component
class SayableWords extends SimpleModule {

    SayableWords() {
        super("sayable-words");
        addDeserializer(String.class, new StdScalarDeserializer<>(String.class) {
            @Override
            public String deserialize(JsonParser parser, DeserializationContext context) {
                String words = StringDeserializer.instance.deserialize(parser, context);
                return words == null ? null : Sayable.of(words);
            }
        });
    }
}
