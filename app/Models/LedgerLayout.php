<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A way to have the ledger open that a person has kept under a name. It goes with the person, into every project.
 *
 * @property int $user_id
 * @property int $no
 * @property string $name
 * @property array<string, mixed> $arrangement lens, columns, sorting, and "rule" for what it was narrowed to
 * @property bool $is_default whether projects that the person opens for the first time start with it
 */
final class LedgerLayout extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'no';

    protected $guarded = [];

    protected $casts = ['arrangement' => 'array', 'is_default' => 'boolean'];
}
