package org.vastporch.server.http;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;
import tools.jackson.databind.module.SimpleModule;

/** A list that is sent has no holes: nothing behind the door has to ask whether something stands there. */
@Component
class NoHoles extends SimpleModule {

    NoHoles() {
        super("no-holes");
    }

    @Override
    public void setupModule(SetupContext context) {
        super.setupModule(context);
        for (Class<?> many : new Class<?>[] {List.class, Set.class, Map.class})
            context.configOverride(many).setNullHandling(JsonSetter.Value.forContentNulls(Nulls.FAIL));
    }
}
