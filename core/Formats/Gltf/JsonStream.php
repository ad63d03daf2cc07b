<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\Bytes;
use VineShelf\Formats\Limits;
use VineShelf\Formats\UnreadableFile;

/**
 * Reads one JSON object member by member, and chosen array members element by element, so that a file with a million nodes never
 * stands in memory as a tree.
 */
final class JsonStream
{
    private const STRING = '"(?:[^"\\\\]++|\\\\.)*+"';

    private string $buffer = '';

    private const AT_ONCE = 400;

    private int $at = 0;

    private int $next = 0;

    /** @param Lifted|null $lifted takes long embedded data out; without it such data is read like anything else */
    public function __construct(
        private readonly Bytes $bytes,
        private readonly Limits $limits,
        private readonly ?Lifted $lifted = null,
    ) {}

    /**
     * @param list<string> $streamed members whose value is an array of objects to be given one by one
     *
     * @return \Generator<int, array{string, mixed}> member name, and its value or one element of it
     */
    public function members(array $streamed): \Generator
    {
        $this->take('~\G(?:\xEF\xBB\xBF)?\s*\{~', 'at its start: an object was expected');
        while ($this->tryTake('~\G\s*\}~') === null) {
            $name = json_decode(
                $this->take('~\G[\s,]*('.self::STRING.')\s*:\s*~', 'near byte '.$this->position().': a member name was expected'),
            );
            if (! is_string($name)) {
                throw UnreadableFile::brokenJson('near byte '.$this->position());
            }
            if (in_array($name, $streamed, true) && $this->tryTake('~\G\[~') !== null) {
                while ($this->tryTake('~\G\s*\]~') === null) {
                    // Many small elements at once are decoded several times as fast as one by one.
                    foreach ($this->several($name) as $element) {
                        yield [$name, $element];
                    }
                }
            } else {
                yield [
                    $name,
                    $this->decode(
                        $this->take(
                            '~\G(\{(?:[^{}"]++|'.
                                self::STRING.
                                '|(?1))*+\}|\[(?:[^\[\]"]++|'.
                                self::STRING.
                                '|(?1))*+\]|'.
                                self::STRING.
                                '|[-+0-9.eE]++(?=[\s,}])|true|false|null)~s',
                            "in \"$name\" near byte ".$this->position(),
                        ),
                        $name,
                    ),
                ];
            }
        }
    }

    /** @return list<mixed> the next elements of an array, as many as are whole in the window, at least one */
    private function several(string $name): array
    {
        $element = '(\{(?:[^{}"]++|'.self::STRING.'|(?1))*+\})';
        $one = $this->take('~\G[\s,]*'.$element.'~s', "in \"$name\" near byte ".$this->position());
        $found = @preg_match('~\G(?:\s*,\s*'.$element.'){1,'.self::AT_ONCE.'}+~s', $this->buffer, $match, 0, $this->at);
        if ($found !== 1) {
            return [$this->decode($one, $name)];
        }
        $elements = $this->decode("[$one$match[0]]", $name);
        $this->at += strlen($match[0]);

        return is_array($elements) ? array_values($elements) : [];
    }

    /** Bytes that have been read. */
    public function position(): int
    {
        return $this->next - strlen($this->buffer) + $this->at;
    }

    private function decode(string $json, string $name): mixed
    {
        // A character that stands for none: PostgreSQL keeps no text that has it. A backslash before it may itself be escaped.
        if (str_contains($json, '\u0000')) {
            $json = (string) preg_replace('~(?<!\\\\)((?:\\\\\\\\)*+)\\\\u0000~', '$1', $json);
        }
        try {
            return json_decode($json, true, 512, JSON_THROW_ON_ERROR);
        } catch (\JsonException $error) {
            throw UnreadableFile::brokenJson("in \"$name\" before byte ".$this->position().': '.lcfirst($error->getMessage()));
        }
    }

    /** Takes what the pattern matches here, its first group if it has one. */
    private function take(string $pattern, string $where): string
    {
        return $this->tryTake($pattern) ?? throw UnreadableFile::brokenJson($where);
    }

    private function tryTake(string $pattern): ?string
    {
        while (true) {
            // A match that ends with the window may go on behind it, so it only counts when more bytes stand there or none are left.
            $found = @preg_match($pattern, $this->buffer, $match, 0, $this->at);
            if ($found === false) {
                throw UnreadableFile::brokenJson('near byte '.$this->position().': it is nested too deeply');
            }
            if ($found === 1 && ($this->at + strlen($match[0]) < strlen($this->buffer) || $this->next >= $this->bytes->size())) {
                $this->at += strlen($match[0]);

                return $match[1] ?? $match[0];
            }
            $held = strlen($this->buffer) - $this->at;
            if ($this->next >= $this->bytes->size() || ($found === 0 && $held > 64 && ! $this->mayGoOn($pattern))) {
                return null;
            }
            if ($held > $this->limits->elementBytes) {
                throw UnreadableFile::tooMuch('an entry that is too large in its JSON (bytes)', $held, $this->limits->elementBytes);
            }
            $this->buffer = substr($this->buffer, $this->at).$this->more(max(1_048_576, $held));
            $this->at = 0;
        }
    }

    /** The next bytes, with the addresses of long embedded data in its place. */
    private function more(int $bytes): string
    {
        $start = $this->next;
        $size = $this->bytes->size();
        $read = $this->bytes->read($start, min($bytes, $size - $start));
        // The mark that such data begins with is not cut in two.
        while (preg_match('~"(?:d(?:a(?:t(?:a)?)?)?)?$~D', $read) === 1 && $start + strlen($read) < $size) {
            $read .= $this->bytes->read($start + strlen($read), min(8, $size - $start - strlen($read)));
        }
        $this->next = $start + strlen($read);
        if ($this->lifted === null) {
            return $read;
        }
        for ($at = strpos($read, '"data:'); $at !== false; $at = strpos($read, '"data:', $at + 6)) {
            $close = strpos($read, '"', $at + 6);
            if ($close !== false && $close - $at < Lifted::LONG) {
                continue;
            }
            $end = $close === false ? $this->closing($this->next) : $start + $close;
            if ($end === null) {
                return $read;
            }
            $rest = $close === false ? '' : substr($read, $close);
            $read = substr($read, 0, $at + 1).$this->lifted->put($start + $at + 1, $end - $start - $at - 1).($rest === '' ? '"' : $rest);
            if ($close === false) {
                $this->next = $end + 1;
                break;
            }
            // What follows has moved forward in the window.
            $start += $close - (strlen($read) - strlen($rest));
        }

        return $read;
    }

    /** Where the next quotation mark stands; null when there is none. */
    private function closing(int $from): ?int
    {
        for ($size = $this->bytes->size(); $from < $size; $from += 1_048_576) {
            $found = strpos($this->bytes->read($from, min(1_048_576, $size - $from)), '"');
            if ($found !== false) {
                return $from + $found;
            }
        }

        return null;
    }

    /** Short patterns are decided by the next 64 bytes unless those are all white space; only values may be longer. */
    private function mayGoOn(string $pattern): bool
    {
        return strlen($pattern) > 20 || trim(substr($this->buffer, $this->at, 64)) === '';
    }
}
