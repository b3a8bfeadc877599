# frozen_string_literal: true

module Classroom
end
