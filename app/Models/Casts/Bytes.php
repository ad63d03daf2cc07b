<?php

declare(strict_types=1);

namespace App\Models\Casts;

use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Contracts\Database\Query\Expression as ExpressionContract;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Query\Expression;

/**
 * A bytea column as a PHP string. Writing goes through base64, which needs no escaping.
 *
 * @implements CastsAttributes<string, string|null>
 */
final class Bytes implements CastsAttributes
{
    public function get(Model $model, string $key, mixed $value, array $attributes): string
    {
        return self::read($value);
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): ?ExpressionContract
    {
        return $value === null ? null : self::write($value);
    }

    /** A value as PDO gives it: a stream, or after a write the expression that wrote it. */
    public static function read(mixed $value): string
    {
        if (is_resource($value)) {
            rewind($value);

            return (string) stream_get_contents($value);
        }
        if ($value instanceof ExpressionContract && preg_match("~'([A-Za-z0-9+/=]*)'~", self::text($value), $found) === 1) {
            return (string) base64_decode($found[1], true);
        }

        return is_string($value) ? $value : '';
    }

    /** @return Expression<non-falsy-string> */
    public static function write(string $bytes): Expression
    {
        return new Expression("decode('".base64_encode($bytes)."', 'base64')");
    }

    private static function text(ExpressionContract $expression): string
    {
        return (string) $expression->getValue(\Illuminate\Support\Facades\DB::getQueryGrammar());
    }
}
