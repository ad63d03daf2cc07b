<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

/** An element of the XML of BCF, asked by the names of what it holds, in whatever namespace. */
final readonly class Element
{
    public function __construct(private \DOMElement $element) {}

    public function name(): string
    {
        return (string) $this->element->localName;
    }

    /** @return string "" where there is none */
    public function attribute(string $name): string
    {
        return $this->element->getAttribute($name);
    }

    public function child(string $name): ?self
    {
        return $this->children($name)[0] ?? null;
    }

    /** @return list<self> */
    public function children(string $name): array
    {
        $children = [];
        foreach ($this->element->childNodes as $child) {
            if ($child instanceof \DOMElement && $child->localName === $name) {
                $children[] = new self($child);
            }
        }

        return $children;
    }

    public function isEmpty(): bool
    {
        return $this->element->firstElementChild === null;
    }

    public function text(): string
    {
        return trim($this->element->textContent);
    }

    /** @return string the text of what is called so, "" where there is none */
    public function textOf(string $name): string
    {
        return $this->child($name)?->text() ?? '';
    }

    /** @return float|null null where it is none, or out of all reason */
    public function numberOf(string $name): ?float
    {
        $text = $this->textOf($name);

        return is_numeric($text) && is_finite((float) $text) && abs((float) $text) < 1e12 ? (float) $text : null;
    }

    /** @return array{float, float, float}|null metres */
    public function pointOf(string $name): ?array
    {
        $point = $this->child($name);
        [$x, $y, $z] = [$point?->numberOf('X'), $point?->numberOf('Y'), $point?->numberOf('Z')];

        return $x === null || $y === null || $z === null ? null : [$x, $y, $z];
    }
}
