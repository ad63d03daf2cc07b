<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** The lines by which a project is sorted, first come first served, and whether what comes in is sorted by them at once. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('projects', static function (Blueprint $table): void {
            $table->integer('next_line')->default(1);
            $table->boolean('sorts_what_comes')->default(false);
        });
        Schema::create('sorting_lines', static function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->integer('position');
            $table->text('rule');
            // 0 to leave layers alone. The path is what it was called when the line was written, for when the layer is gone.
            $table->integer('layer_no')->default(0);
            $table->text('layer_path')->default('');
            // Number and path of each tag.
            $table->jsonb('gives')->default('[]');
            $table->text('pattern')->default('');
            $table->boolean('only')->default(false);
            $table->boolean('goes_on')->default(false);
            $table->boolean('is_off')->default(false);
            $table->text('note')->default('');
            $table->primary(['project_id', 'no']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('sorting_lines');
        Schema::table('projects', static fn (Blueprint $table) => $table->dropColumn(['next_line', 'sorts_what_comes']));
    }
};
