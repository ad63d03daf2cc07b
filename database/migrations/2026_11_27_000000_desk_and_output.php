<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What pictures show beside what a desk shows; which of both the canvas has; how it draws edges. */
return new class extends Migration {
    public function up(): void
    {
        foreach (['layers', 'tags', 'folders'] as $name) {
            Schema::table($name, function (Blueprint $table): void {
                $table->smallInteger('output')->nullable();
                $table->text('output_note')->default('');
            });
        }
        Schema::table('views', function (Blueprint $table): void {
            $table->binary('own_output')->nullable();
        });
        Schema::table('desks', function (Blueprint $table): void {
            $table->boolean('shows_output')->default(false);
            $table->boolean('output_of_view')->default(true);
            $table->integer('alone_layer')->default(0);
            $table->jsonb('section')->default('{}');
            $table->string('edges', 8)->default('own');
        });
        // Whoever has the desk's column gets the one of the output beside it.
        foreach (['desks' => ['ledger', 'user_id'], 'ledger_layouts' => ['arrangement', 'no']] as $name => [$column, $second]) {
            $first = $name === 'desks' ? 'project_id' : 'user_id';
            foreach (DB::table($name)->get([$first, $second, $column]) as $row) {
                $kept = json_decode((string) $row->$column, true);
                $ids = is_array($kept['columns'] ?? null) ? array_column($kept['columns'], 0) : [];
                $at = array_search('desk', $ids, true);
                if ($at !== false && ! in_array('output', $ids, true)) {
                    array_splice($kept['columns'], $at + 1, 0, [['output', 54]]);
                    DB::table($name)
                        ->where($first, $row->$first)
                        ->where($second, $row->$second)
                        ->update([$column => json_encode($kept)]);
                }
            }
        }
    }

    public function down(): void
    {
        Schema::table(
            'desks',
            fn (Blueprint $table) => $table->dropColumn(['shows_output', 'output_of_view', 'alone_layer', 'section', 'edges']),
        );
        Schema::table('views', fn (Blueprint $table) => $table->dropColumn('own_output'));
        foreach (['layers', 'tags', 'folders'] as $name) {
            Schema::table($name, fn (Blueprint $table) => $table->dropColumn(['output', 'output_note']));
        }
    }
};
