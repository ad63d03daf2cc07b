<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Changes that are taken back by name and by whom, sources that can be taken back, imports that are counted, pictures of projects. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('changes', function (Blueprint $table): void {
            $table->bigInteger('turn')->default(0);
            $table->foreignId('undone_by')->nullable()->constrained('users')->nullOnDelete();
            $table->text('barred')->default('');
        });
        DB::statement('UPDATE changes SET turn = no, undone_by = CASE WHEN undone THEN user_id END');
        Schema::table('sources', function (Blueprint $table): void {
            $table->boolean('gone')->default(false);
            $table->bigInteger('kept')->default(0);
        });
        Schema::table('imports', function (Blueprint $table): void {
            $table->smallInteger('attempts')->default(0);
        });
        Schema::table('projects', function (Blueprint $table): void {
            $table->string('picture')->default('');
        });
    }

    public function down(): void
    {
        Schema::table('projects', fn (Blueprint $table) => $table->dropColumn('picture'));
        Schema::table('imports', fn (Blueprint $table) => $table->dropColumn('attempts'));
        Schema::table('sources', fn (Blueprint $table) => $table->dropColumn(['gone', 'kept']));
        Schema::table('changes', fn (Blueprint $table) => $table->dropColumn(['turn', 'undone_by', 'barred']));
    }
};
