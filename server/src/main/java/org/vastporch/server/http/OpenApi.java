package org.vastporch.server.http;

import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.servers.Server;
import java.lang.annotation.Annotation;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.customizers.PropertyCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The description of the web API. A field is required unless it is marked as nullable in the record behind it. */
@Configuration
class OpenApi {

    private static final String OPTIONAL = "x-optional";

    @Bean
    OpenAPI description() {
        return new OpenAPI()
                .info(new Info().title("Vast Porch").version("1"))
                .components(new Components())
                .servers(List.of(new Server().url("/")));
    }

    @Bean
    PropertyCustomizer markOptional() {
        return (property, type) -> {
            if (type.getCtxAnnotations() != null)
                for (Annotation annotation : type.getCtxAnnotations())
                    if (annotation.annotationType().getSimpleName().equals("Optionally"))
                        property.addExtension(OPTIONAL, true);
            return property;
        };
    }

    @Bean
    OpenApiCustomizer requireTheRest() {
        return api -> {
            if (api.getComponents().getSchemas() == null) return;
            api.getComponents().getSchemas().values().forEach(OpenApi::requireTheRest);
        };
    }

    @SuppressWarnings({"rawtypes", "unchecked"})
    private static void requireTheRest(io.swagger.v3.oas.models.media.Schema schema) {
        Map<String, io.swagger.v3.oas.models.media.Schema> properties = schema.getProperties();
        if (properties == null) return;
        List<String> required = new ArrayList<>();
        properties.forEach((name, property) -> {
            boolean optional =
                    property.getExtensions() != null && property.getExtensions().remove(OPTIONAL) != null;
            if (property.getExtensions() != null && property.getExtensions().isEmpty()) property.setExtensions(null);
            if (!optional) required.add(name);
        });
        schema.setRequired(required.isEmpty() ? null : required);
    }
}
