<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::table('views', static function (Blueprint $table): void {
            $table->jsonb('tint')->nullable();
            $table->jsonb('section')->nullable();
            $table->binary('isolated')->nullable();
            $table->text('note')->default('');
            // Whether the camera stays what it is, whatever the canvas looks at.
            $table->boolean('camera_held')->default(false);
            // Numbers of the layers and folders that the view knows; null for all up to known_layer, and all folders.
            $table->jsonb('known_layers')->nullable();
            $table->jsonb('known_folders')->nullable();
            $table->integer('known_layer')->nullable()->change();
            // The number that the next change would have got when the view was kept, updated or reviewed.
            $table->bigInteger('known_turn')->default(0);
            $table->binary('strangers')->nullable();
            // Revision of the project that the picture shows.
            $table->bigInteger('pictured')->default(0);
        });
        // A view that keeps rungs ended isolating when it was applied.
        DB::statement("UPDATE views SET isolated = ''::bytea WHERE rungs IS NOT NULL");
        DB::statement("UPDATE views SET pictured = 1 WHERE picture <> ''");
        Schema::table('desk_steps', static function (Blueprint $table): void {
            $table->jsonb('facets_before')->nullable();
            $table->jsonb('facets_after')->nullable();
        });
        // What views would keep to show what they showed before the change; empty when none shows anything differently.
        Schema::table('changes', static fn (Blueprint $table) => $table->binary('as_it_was')->nullable());
    }

    public function down(): void
    {
        Schema::table('changes', static fn (Blueprint $table) => $table->dropColumn('as_it_was'));
        Schema::table('desk_steps', static fn (Blueprint $table) => $table->dropColumn(['facets_before', 'facets_after']));
        Schema::table('views', static function (Blueprint $table): void {
            $table->dropColumn([
                'tint',
                'section',
                'isolated',
                'note',
                'camera_held',
                'known_layers',
                'known_folders',
                'known_turn',
                'strangers',
                'pictured',
            ]);
        });
    }
};
