# frozen_string_literal: true

# Besides pictures: sound, video and captions. Those have no width and height.
Sequel.migration do
  up do
    alter_table(:media) do
      drop_constraint :media_file_shape
      add_constraint(:media_file_shape, Sequel.lit("file ~ '^[0-9a-f]{64}\\.(png|jpg|svg|mp3|oga|weba|m4a|wav|mp4|webm|vtt)$'"))
      set_column_allow_null :width
      set_column_allow_null :height
    end
  end

  down do
    from(:media).where(width: nil).delete
    alter_table(:media) do
      drop_constraint :media_file_shape
      add_constraint(:media_file_shape, Sequel.lit("file ~ '^[0-9a-f]{64}\\.(png|jpg|svg)$'"))
      set_column_not_null :width
      set_column_not_null :height
    end
  end
end
