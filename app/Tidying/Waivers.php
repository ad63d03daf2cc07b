<?php

declare(strict_types=1);

namespace App\Tidying;

use App\Models\Casts\Bytes;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Scene\Scene;
use VineShelf\Tidy\Item;

/** What somebody has waved through: a habit, one thing that was found, or some objects. */
final readonly class Waivers
{
    /** @param list<array{no: int, check: string, item: string, members: Bits|null}> $waivers */
    private function __construct(private array $waivers) {}

    public static function of(Project $project): self
    {
        $waivers = [];
        foreach (DB::table('waivers')->where('project_id', $project->id)->orderBy('no')->get() as $row) {
            $members = $row->members === null ? null : Members::unpack(Bytes::read($row->members));
            $waivers[] = ['no' => (int) $row->no, 'check' => (string) $row->check, 'item' => (string) $row->item, 'members' => $members];
        }

        return new self($waivers);
    }

    /**
     * @param list<Item> $items
     *
     * @return list<Item> what is left of them
     */
    public function sift(string $check, array $items, Scene $scene): array
    {
        $waived = Bits::none($scene->count());
        $keys = [];
        foreach ($this->waivers as $waiver) {
            if ($waiver['check'] !== $check) {
                continue;
            }
            if ($waiver['item'] === '' && $waiver['members'] === null) {
                return [];
            }
            if ($waiver['members'] !== null) {
                $waived = $waived->or($scene->rowBits($waiver['members']));
            } else {
                $keys[$waiver['item']] = true;
            }
        }
        $left = [];
        foreach ($items as $item) {
            $rows = $item->rows->without($waived);
            if (! isset($keys[$item->key]) && (! $rows->isEmpty() || $item->rows->isEmpty())) {
                $left[] = new Item($item->key, $item->says, $rows, $item->of);
            }
        }

        return $left;
    }

    /** @return array<string, list<int>> numbers of what was waved through, by check */
    public function byCheck(): array
    {
        $numbers = [];
        foreach ($this->waivers as $waiver) {
            $numbers[$waiver['check']][] = $waiver['no'];
        }

        return $numbers;
    }

    /** Whether a check is waved through as a whole. */
    public function isHabit(string $check): bool
    {
        foreach ($this->waivers as $waiver) {
            if ($waiver['check'] === $check && $waiver['item'] === '' && $waiver['members'] === null) {
                return true;
            }
        }

        return false;
    }
}
