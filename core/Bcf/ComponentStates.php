<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

/** What a viewpoint says of components: in elements of their own, or as BCF 2.0 has it, in attributes of each. */
final readonly class ComponentStates
{
    /**
     * @param bool                                   $shows    whether what is not excepted is shown
     * @param list<Component>                        $excepted
     * @param list<Component>                        $selected
     * @param list<array{string, list<Component>}> $colours  colour in six digits, and what has it
     */
    private function __construct(
        public bool $shows = true,
        public array $excepted = [],
        public array $selected = [],
        public array $colours = [],
    ) {}

    public static function in(?Element $components): self
    {
        if ($components === null) {
            return new self;
        }
        if ($components->child('Component') !== null) {
            return self::byAttributes($components);
        }
        $visibility = $components->child('Visibility');

        return new self(
            ! in_array($visibility?->attribute('DefaultVisibility'), ['false', '0'], true),
            self::components($visibility?->child('Exceptions')),
            self::components($components->child('Selection')),
            self::colours($components->child('Coloring')),
        );
    }

    private static function byAttributes(Element $components): self
    {
        $hidden = $selected = $colours = [];
        $is = static fn (Element $of, string $name, bool $otherwise): bool => match (strtolower(trim($of->attribute($name)))) {
            'true', '1' => true,
            'false', '0' => false,
            default => $otherwise,
        };
        foreach ($components->children('Component') as $element) {
            $component = self::component($element);
            $code = self::code($element);
            $is($element, 'Visible', true) || ($hidden[] = $component);
            ! $is($element, 'Selected', false) || ($selected[] = $component);
            $code === '' || ($colours[$code][] = $component);
        }

        $each = array_map(static fn (string|int $code): array => [(string) $code, $colours[$code]], array_keys($colours));

        return new self(true, $hidden, $selected, $each);
    }

    /** @return list<array{string, list<Component>}> */
    private static function colours(?Element $colouring): array
    {
        $colours = [];
        foreach ($colouring?->children('Color') ?? [] as $colour) {
            $code = self::code($colour);
            $those = self::components($colour->child('Components') ?? $colour);
            if ($code !== '' && $those !== []) {
                $colours[] = [$code, $those];
            }
        }

        return $colours;
    }

    /** @return list<Component> */
    private static function components(?Element $in): array
    {
        return array_map(self::component(...), $in?->children('Component') ?? []);
    }

    private static function component(Element $component): Component
    {
        return Component::read(
            $component->attribute('IfcGuid'),
            $component->textOf('OriginatingSystem'),
            $component->textOf('AuthoringToolId'),
        );
    }

    /** @return string six digits, "" where there is no colour; of eight the first two say how opaque it is */
    private static function code(Element $of): string
    {
        $code = strtoupper(ltrim(trim($of->attribute('Color')), '#'));
        $code = preg_match('~^[0-9A-F]{8}$~D', $code) === 1 ? substr($code, 2) : $code;

        return preg_match('~^[0-9A-F]{6}$~D', $code) === 1 ? $code : '';
    }
}
