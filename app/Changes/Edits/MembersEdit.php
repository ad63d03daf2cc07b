<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Casts\Bytes;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Scene\Scene;

/** Objects that come to a tag, a fixed set or a value, and objects that leave it; one small update, however many they are. */
final readonly class MembersEdit implements Edit
{
    /** What a row of each table is called, and the column of the scene that has its members. */
    private const TABLES = ['tags' => 'tag', 'sets' => 'set', 'own_values' => 'value'];

    /**
     * @param string $table   "tags", "sets" or "own_values"
     * @param Bits   $added   object numbers that were not among the members
     * @param Bits   $removed object numbers that were
     */
    public function __construct(public string $table, public int $number, public Bits $added, public Bits $removed)
    {
        if (! isset(self::TABLES[$table])) {
            throw new \InvalidArgumentException("\"$table\" have no members.");
        }
    }

    /** The members of a tag or a set as they are stored; null when there is no such row. */
    public static function members(Project $project, string $table, int $number): ?Bits
    {
        $row = DB::table($table)
            ->where('project_id', $project->id)
            ->where('no', $number)
            ->first(['members']);

        return $row === null ? null : Members::unpack(Bytes::read($row->members));
    }

    public function check(Project $project): void
    {
        $row = DB::table($this->table)->where('project_id', $project->id)->where('no', $this->number)->first();
        if ($row === null) {
            throw OutOfStep::missing('The '.self::TABLES[$this->table]);
        }
        $members = Members::unpack(Bytes::read($row->members));
        $name = $row->name ?? ($row->value ?? '');
        if ($this->added->less($members)->count() !== $this->added->count() || ! $this->removed->less($members)->isEmpty()) {
            throw OutOfStep::changed('What is in the '.self::TABLES[$this->table].' '.(is_string($name) ? $name : ''));
        }
        if ($this->table === 'own_values') {
            Places::checkNoOtherValue($project, (string) $row->property, $this->added, $this->number);
        }
    }

    public function apply(Project $project): void
    {
        $members = self::members($project, $this->table, $this->number)?->with($this->added)->less($this->removed) ?? Bits::none(0);
        DB::table($this->table)
            ->where('project_id', $project->id)
            ->where('no', $this->number)
            ->update(['members' => Bytes::write(Members::pack($members))] + ($this->table === 'sets' ? ['size' => $members->count()] : []));
    }

    public function reversed(): self
    {
        return new self($this->table, $this->number, $this->removed, $this->added);
    }

    public function columns(Scene $scene): array
    {
        $column = self::TABLES[$this->table].".$this->number";
        $rows = $scene->members($column)->or($scene->rowBits($this->added))->without($scene->rowBits($this->removed));

        return [$column => $rows->isEmpty() ? '' : $rows->bytes];
    }

    public function writes(): array
    {
        return ["$this->table members $this->number" => $this->objects()];
    }

    public function needs(): array
    {
        return [$this->table => Numbers::of([$this->number])];
    }

    public function objects(): Bits
    {
        return $this->added->with($this->removed);
    }

    public function toArray(): array
    {
        return [
            'members' => $this->table,
            'no' => $this->number,
            'added' => base64_encode(Members::pack($this->added)),
            'removed' => base64_encode(Members::pack($this->removed)),
        ];
    }

    /** @param array<string, mixed> $array */
    public static function fromArray(array $array): self
    {
        $bits = static fn (mixed $text): Bits => Members::unpack(is_string($text) ? (string) base64_decode($text, true) : '');

        return new self(
            is_string($array['members']) ? $array['members'] : '',
            is_int($array['no']) ? $array['no'] : 0,
            $bits($array['added']),
            $bits($array['removed']),
        );
    }
}
