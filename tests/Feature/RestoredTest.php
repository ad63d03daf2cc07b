<?php

declare(strict_types=1);

namespace Tests\Feature;

use Illuminate\Support\Facades\DB;

/** A database that was set back to an earlier hour, beside files that are newer. */
final class RestoredTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    public function test_indexes_of_what_was_made_since_are_never_served(): void
    {
        $this->send('POST', 'file', ['layer' => 3, 'keys' => 'O1'])->assertOk();
        $before = $this->project->refresh()->revision;
        $desk = $this->bench()->desk->revision;
        $made = [];
        foreach (range(1, 3) as $_) {
            DB::beginTransaction();
            // Each leaves an index and files on the disk, whatever becomes of it in the database.
            $this->send('POST', 'file', ['layer' => 4, 'keys' => 'O1,O2,O3'])->assertOk();
            $this->send('POST', 'objects/group', ['keys' => 'O5,O6', 'name' => 'Later'])->assertOk();
            $this->bench()->scene()->count();
            $this->send('POST', 'rungs', ['keys' => 'O1', 'rung' => 2])->assertOk();
            $made[] = [$this->project->refresh()->revision, $this->bench()->desk->revision];
            DB::rollBack();
            self::assertSame([$before, $desk], [$this->project->refresh()->revision, $this->bench()->desk->revision]);
            $this->assertIndexTrue($this->project);
        }
        self::assertCount(3, array_unique(array_column($made, 0)), 'no revision is given twice');
        self::assertCount(3, array_unique(array_column($made, 1)));

        // The nesting is built anew from the database: an index that lies under the same name would be taken for it.
        $this->send('POST', 'objects/group', ['keys' => 'O8,O9', 'name' => 'Now'])->assertOk();
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'file', ['layer' => 5, 'keys' => 'O2'])->assertOk();
        $this->assertIndexTrue($this->project);
        self::assertSame(5, $this->bench()->scene()->layers()->at($this->bench()->scene()->row(2)));
    }
}
